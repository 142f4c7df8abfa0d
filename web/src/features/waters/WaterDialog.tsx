import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client, Refused, type Library, type Source } from "@/api/client";
import { watersQuery } from "@/api/queries";
import { Button, Dialog, Select } from "@/ui/controls";
import { NumberBox } from "@/ui/fields/NumberBox";
import { Row } from "@/ui/fields/Row";
import { Says } from "@/ui/figures/Says";
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
          const id = `water-${name}`;
          const told = wrong && (
            <p id={`${id}-fault`} role="alert" className="text-sm text-short">
              <Says sentence={wrong.sentence} />
            </p>
          );
          return options.length > 0 ? (
            <Row key={name} label={entry.label} told={told}>
              <Select label={entry.label} value={typed[name] ?? ""} options={options} onChange={set(name)} />
            </Row>
          ) : (
            <Row key={name} id={id} label={entry.label} told={told}>
              <NumberBox
                id={id}
                shown={typed[name] ?? ""}
                type={set(name)}
                unit={units.unit(entry.kind).label}
                bad={Boolean(wrong)}
                told={`${id}-fault`}
              />
            </Row>
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
