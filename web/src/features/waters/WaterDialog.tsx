import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useId, useState } from "react";
import { asked, client, Refused, type Library, type Source } from "@/api/client";
import { watersQuery } from "@/api/queries";
import { Button, Dialog, Select } from "@/ui/controls";
import { Says } from "@/ui/Says";
import { useUnits } from "@/ui/units";
import { FIELDS, sourceOf, typedOf, type Typed } from "./model";

interface WaterDialogProps {
  id: number | null;
  revision: number;
  water: Source;
  library: Library;
  close: () => void;
}

/** One water by its test: every value with its unit, a fault beside its field. */
export function WaterDialog({ id, revision, water, library, close }: WaterDialogProps) {
  const units = useUnits();
  const [start] = useState<Typed>(() => typedOf(water, library.entries, units));
  const [typed, setTyped] = useState<Typed>(start);
  const queries = useQueryClient();
  const saving = useMutation({
    mutationFn: (base: number) => {
      const sources = [sourceOf(water, typed, library.entries, units)];
      if (id === null) return asked(client.POST("/api/waters", { body: { sources } }));
      const params = { path: { water_id: id } };
      return asked(client.PUT("/api/waters/{water_id}", { params, body: { base, sources } }));
    },
    onSuccess: async () => {
      await queries.invalidateQueries(watersQuery);
      close();
    },
  });
  const fault = saving.error instanceof Refused ? saving.error.fault : undefined;
  const faults = fault?.fields ?? [];
  const stale = fault?.code === "stale_revision" ? fault : undefined;
  const unsaved = Object.entries(typed).some(([name, text]) => text !== start[name]);
  const showOther = async () => {
    await queries.invalidateQueries(watersQuery);
    close();
  };
  const set = (name: string) => (text: string) => setTyped((now) => ({ ...now, [name]: text }));
  return (
    <Dialog
      title={id === null ? "A new water" : "A water"}
      open
      onOpenChange={(open) => !open && close()}
      unsaved={unsaved}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          saving.mutate(revision);
        }}
      >
        <label className="mb-3 flex items-center gap-3">
          <span className="text-quiet">Name</span>
          <input
            value={typed.src_name}
            maxLength={80}
            onChange={(event) => set("src_name")(event.target.value)}
            className="min-h-9 flex-1 rounded-sm border border-line bg-ground px-2"
          />
        </label>
        {FIELDS.map((name) => {
          const entry = library.entries[`sources.*.${name}`]!;
          const wrong = faults.find((found) => found.path === `sources.0.${name}`);
          const options = Object.entries(entry.options);
          return (
            <div key={name} className="border-b border-line/70 py-1">
              {options.length > 0 ? (
                <div className="flex min-h-9 items-center justify-between">
                  <span className="text-quiet">{entry.label}</span>
                  <Select
                    label={entry.label}
                    value={typed[name] ?? ""}
                    options={options}
                    onChange={set(name)}
                  />
                </div>
              ) : (
                <Box
                  label={entry.label}
                  unit={units.unit(entry.kind).label}
                  value={typed[name] ?? ""}
                  bad={Boolean(wrong)}
                  type={set(name)}
                />
              )}
              {wrong && (
                <p role="alert" className="text-sm text-short">
                  <Says sentence={wrong.sentence} />
                </p>
              )}
            </div>
          );
        })}
        {saving.isError && faults.length === 0 && (
          <div role="alert" className="mt-3 border-l-3 border-short py-1 pl-3">
            <p>{saving.error.message}</p>
            {stale && (
              <span className="mt-2 flex flex-wrap gap-2">
                <Button onClick={() => saving.mutate(stale.current ?? revision)}>
                  Keep mine, on top of it
                </Button>
                <Button onClick={() => void showOther()}>Discard mine, show the other</Button>
              </span>
            )}
          </div>
        )}
        <div className="mt-4 flex gap-2">
          <Button look="strong" type="submit" disabled={saving.isPending}>
            Save
          </Button>
          <Button onClick={close}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}

interface BoxProps {
  label: string;
  unit: string;
  value: string;
  bad: boolean;
  type: (text: string) => void;
}

function Box({ label, unit, value, bad, type }: BoxProps) {
  const id = useId();
  return (
    <div className="flex min-h-9 items-center justify-between gap-3">
      <label htmlFor={id} className="text-quiet">
        {label}
      </label>
      <span className="inline-flex items-baseline gap-1.5">
        <input
          id={id}
          inputMode="decimal"
          autoComplete="off"
          aria-invalid={bad || undefined}
          value={value}
          onChange={(event) => type(event.target.value)}
          className={`num min-h-8 w-24 rounded-sm border bg-ground px-2 text-right pointer-coarse:min-h-11 ${bad ? "border-short" : "border-line"}`}
        />
        <span className="w-16 text-sm text-quiet">{unit}</span>
      </span>
    </div>
  );
}
