import { useState } from "react";
import { Refused, type LogEntry, type Logged } from "@/api/client";
import { parsed } from "@/lib/quantity";
import { Button, Dialog, Select } from "@/ui/controls";
import { useUnits } from "@/ui/units";
import { localMinute, useKnown, useLogbook, whole } from "./log";

interface EntryProps {
  id: number;
  /** The entry that is changed; a new one without. */
  row?: Logged;
  /** What a new one starts with. */
  start?: Partial<LogEntry>;
  close: () => void;
}

const BOX = "num min-h-9 rounded-sm border border-line bg-paper px-2 pointer-coarse:min-h-11";
const WHAT: Partial<Record<LogEntry["kind"], string>> = {
  added: "Of what",
  taken: "Of what",
  experiment: "What is tried",
  source: "Which water",
  light: "How",
};

/** Anything that was done or happened; a reading too, when it is put right. */
export function EntryDialog({ id, row, start, close }: EntryProps) {
  const known = useKnown();
  const units = useUnits();
  const { add, change } = useLogbook(id);
  const [entry, setEntry] = useState<LogEntry>(row?.entry ?? whole({ kind: "change", ...start }));
  const [at, setAt] = useState(localMinute(row ? new Date(row.at) : new Date()));
  if (!known) return null;
  const saving = row ? change : add;
  const set = (changes: Partial<LogEntry>) => setEntry({ ...entry, ...changes });
  const save = () => {
    const done = { onSuccess: close };
    if (row) change.mutate({ row, at: new Date(at), entry }, done);
    else add.mutate([{ at: new Date(at), entry }], done);
  };
  const number = (key: "litres" | "share" | "amount", kind: string, label: string) => (
    <label className="flex items-center justify-between gap-3 border-b border-line/70 py-1">
      <span className="text-quiet">{label}</span>
      <span className="flex items-baseline gap-1.5">
        <input
          inputMode="decimal"
          defaultValue={entry[key] == null ? "" : units.entry(entry[key], kind)}
          onChange={(event) => {
            const typed = parsed(event.target.value, () => true);
            set({ [key]: typed === null ? null : units.base(typed, kind) });
          }}
          className={`${BOX} w-24 text-right`}
        />
        <span className="text-sm text-quiet">{units.unit(kind).label}</span>
      </span>
    </label>
  );
  const select = (label: string, value: string, options: Record<string, string>) => (
    <div className="flex items-center justify-between gap-3 border-b border-line/70 py-1">
      <span className="text-quiet">{label}</span>
      <Select
        label={label}
        value={value}
        options={Object.entries(options)}
        onChange={(what) => set({ what })}
        placeholder="choose"
      />
    </div>
  );
  const text = (key: "what" | "value" | "note" | "until", label: string, type = "text") => (
    <label className="flex items-center justify-between gap-3 border-b border-line/70 py-1">
      <span className="text-quiet">{label}</span>
      <input
        type={type}
        value={entry[key] ?? ""}
        maxLength={key === "note" ? 2000 : 80}
        onChange={(event) => set({ [key]: event.target.value })}
        className={`${BOX} ${key === "note" ? "flex-1" : "w-48"}`}
      />
    </label>
  );
  const kinds = Object.entries(known.kinds).filter(([key]) => key !== "reading");
  return (
    <Dialog title={row ? "Put right" : "What happened"} open onOpenChange={(open) => !open && close()}>
      {entry.kind !== "reading" && (
        <div className="mb-2">
          <Select
            label="What happened"
            value={entry.kind}
            options={kinds}
            onChange={(kind) => set({ kind: kind as LogEntry["kind"], what: "" })}
          />
        </div>
      )}
      {entry.kind === "reading" &&
        text("value", known.measures.find(({ key }) => key === entry.what)?.label ?? "Read as")}
      {entry.kind === "change" && number("litres", "volume", "Litres changed")}
      {["change", "filter"].includes(entry.kind) &&
        number("share", "share", entry.kind === "change" ? "or a share" : "Share of the filter")}
      {entry.kind === "dose" && select("Of what", entry.what ?? "", known.doses)}
      {entry.kind === "filter" && select("How", entry.what ?? "", known.cleaned)}
      {WHAT[entry.kind] && text("what", WHAT[entry.kind]!)}
      {entry.kind === "dose" && number("amount", "ratio", "Grams or millilitres")}
      {["arrival", "death", "feed"].includes(entry.kind) &&
        number("amount", "ratio", entry.kind === "feed" ? "Grams" : "How many")}
      {entry.kind === "experiment" && text("until", "Until, if it is over", "date")}
      {text("note", "Note")}
      <label className="flex items-center justify-between gap-3 border-b border-line/70 py-1">
        <span className="text-quiet">When</span>
        <input
          type="datetime-local"
          value={at}
          max={localMinute(new Date())}
          onChange={(event) => setAt(event.target.value)}
          className={BOX}
        />
      </label>
      {saving.error instanceof Refused && (
        <p role="alert" className="mt-2 text-sm text-short">
          {saving.error.message}
        </p>
      )}
      <div className="mt-4 flex gap-2">
        <Button look="strong" disabled={saving.isPending} onClick={save}>
          Keep
        </Button>
        <Button onClick={close}>Leave it</Button>
      </div>
    </Dialog>
  );
}
