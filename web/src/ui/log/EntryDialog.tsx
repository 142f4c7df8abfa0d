import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { Refused, type LogEntry, type Logged } from "@/api/client";
import { parsed } from "@/lib/shown/quantity";
import { Button, Dialog, Select } from "@/ui/controls";
import { useUnits } from "@/ui/units";
import { localMinute, useAbout, useKnown, useLogbook, whole } from "./log";
import { OF_ANIMALS } from "./words";

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

const ALL = "all";
const MEASURED_IN = { g: "g", mL: "mL", drops: "drops", tablets: "tablets" };

/** Anything that was done or happened; a reading too, when it is put right. */
export function EntryDialog({ id, row, start, close }: EntryProps) {
  const known = useKnown();
  const about = useAbout(id);
  const units = useUnits();
  const { add, change } = useLogbook(id);
  const [entry, setEntry] = useState<LogEntry>(row?.entry ?? whole({ kind: "change", ...start }));
  const [at, setAt] = useState(localMinute(row ? new Date(row.at) : new Date()));
  if (!known || !about) return null;
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
  const select = (
    label: string,
    value: string,
    options: Record<string, string>,
    choose = (what: string) => set({ what }),
  ) => (
    <div className="flex items-center justify-between gap-3 border-b border-line/70 py-1">
      <span className="text-quiet">{label}</span>
      <Select
        label={label}
        value={value}
        options={Object.entries(options)}
        onChange={choose}
        placeholder="choose"
      />
    </div>
  );
  const dosed = (what: string) =>
    set(
      what === "ammonia"
        ? { what, unit: about.ammonia_unit, product: about.ammonia_product }
        : { what, unit: known.units[what] ?? "", product: "" },
    );
  const ofAnimals = OF_ANIMALS.has(entry.kind);
  const text = (key: "what" | "value" | "note" | "until" | "product", label: string, type = "text") => (
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
  const kinds = Object.entries(known.kinds).filter(
    ([key]) => key === entry.kind || (key !== "reading" && !known.not_here.includes(key)),
  );
  return (
    <Dialog title={row ? "Put right" : "What happened"} open onOpenChange={(open) => !open && close()}>
      {entry.kind !== "reading" && (
        <div className="mb-2">
          <Select
            label="What happened"
            value={entry.kind}
            options={kinds}
            onChange={(kind) =>
              // What one kind says, another has no use for.
              setEntry(
                whole({
                  kind: kind as LogEntry["kind"],
                  note: entry.note,
                  resident: OF_ANIMALS.has(kind) ? entry.resident : null,
                  amount: OF_ANIMALS.has(kind) && kind !== "signs" ? 1 : null,
                }),
              )
            }
          />
        </div>
      )}
      {entry.kind === "reading" &&
        text("value", known.measures.find(({ key }) => key === entry.what)?.label ?? "Read as")}
      {entry.kind === "change" && number("litres", "volume", "Litres changed")}
      {["change", "filter"].includes(entry.kind) &&
        number("share", "share", entry.kind === "change" ? "or a share" : "Share of the filter")}
      {ofAnimals &&
        about.animals.length > 0 &&
        select(
          "Whose",
          entry.resident ? String(entry.resident) : "",
          Object.fromEntries(about.animals.map((row) => [row.id, `${row.name}, ${row.here} here`])),
          (resident) => set({ resident: Number(resident) }),
        )}
      {entry.kind === "dose" && select("Of what", entry.what ?? "", known.doses, dosed)}
      {entry.kind === "filter" && select("How", entry.what ?? "", known.cleaned)}
      {entry.kind === "filter" &&
        Object.keys(about.filters).length > 1 &&
        select("Which filter", entry.filter || ALL, { [ALL]: "all of them", ...about.filters }, (which) =>
          set({ filter: which === ALL ? "" : which }),
        )}
      {WHAT[entry.kind] && text("what", WHAT[entry.kind]!)}
      {entry.kind === "dose" && number("amount", "ratio", "How much")}
      {entry.kind === "dose" && select("In", entry.unit ?? "", MEASURED_IN, (unit) => set({ unit }))}
      {entry.kind === "dose" && text("product", "Which product")}
      {entry.kind === "feed" && number("amount", "ratio", "Grams")}
      {ofAnimals && entry.kind !== "signs" && number("amount", "count", "How many")}
      {entry.kind === "arrival" && (
        <p className="py-1 text-sm text-quiet">
          New ones are written into the{" "}
          <Link to="/register" className="font-semibold text-edge-deep hover:underline">
            Register
          </Link>
          : from whom, how long they are, what they cost.
        </p>
      )}
      {entry.kind === "experiment" && text("until", "Until, if it is over", "date")}
      {text("note", ["death", "signs"].includes(entry.kind) ? "Signs seen" : "Note")}
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
