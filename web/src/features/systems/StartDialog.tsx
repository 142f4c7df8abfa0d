import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { Tabs } from "radix-ui";
import { useState } from "react";
import { asked, client, Refused, type Species, type Tank } from "@/api/client";
import { ALL_SYSTEMS, libraryQuery } from "@/api/queries";
import { parsed } from "@/lib/quantity";
import { Button, Dialog } from "@/ui/controls";
import { NumberBox } from "@/ui/fields/NumberBox";
import { Says } from "@/ui/figures/Says";
import { SpeciesPicker } from "@/ui/fields/SpeciesPicker";
import { useUnits } from "@/ui/units";

interface Wanted {
  species: Species;
  number: string;
}

const SIZES = ["tank_length_cm", "tank_width_cm", "tank_height_cm"] as const;
const TAB =
  "min-h-9 border-b-2 border-transparent px-1 data-[state=active]:border-edge data-[state=active]:font-semibold";

/** A new system: which animals, or which tank. */
export function StartDialog({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const [from, setFrom] = useState("animals");
  const [name, setName] = useState("");
  const [wanted, setWanted] = useState<Wanted[]>([]);
  const [sizes, setSizes] = useState<Record<string, string>>({});
  const units = useUnits();
  const start = useStart();
  const called = name.trim() || (wanted[0]?.species.common ?? "New system");
  const begin = () => {
    const count = (text: string) => (parsed(text) ?? text) as number;
    if (from === "animals") {
      const animals = wanted.map(({ species, number }) => ({ species: species.key, number: count(number) }));
      start.mutate({ from: "animals", body: { name: called, animals } });
    } else {
      const size = (text: string) => {
        const value = parsed(text);
        return (value === null ? text : units.base(value, "length")) as number;
      };
      const tank = Object.fromEntries(SIZES.map((key) => [key, size(sizes[key] ?? "")])) as Partial<Tank>;
      start.mutate({ from: "glass", body: { name: called, tank: tank as Tank } });
    }
  };
  const ready = from === "animals" ? wanted.length > 0 : SIZES.every((key) => sizes[key]?.trim());
  return (
    <Dialog title="New system" open={open} onOpenChange={onOpenChange}>
      <label className="mb-4 block">
        <span className="block text-sm text-quiet">Name</span>
        <input
          value={name}
          onChange={(event) => setName(event.target.value)}
          maxLength={80}
          placeholder={called}
          className={FIELD}
        />
      </label>
      <Tabs.Root value={from} onValueChange={setFrom}>
        <Tabs.List aria-label="Start from" className="mb-4 flex gap-5 border-b border-line">
          <Tabs.Trigger value="animals" className={TAB}>
            From animals
          </Tabs.Trigger>
          <Tabs.Trigger value="glass" className={TAB}>
            From glass
          </Tabs.Trigger>
        </Tabs.List>
        <Tabs.Content value="animals">
          <p className="mb-3 text-sm text-quiet">
            Loquen proposes the smallest tank that is sold with room for them full grown, its filter and heat.
          </p>
          <SpeciesPicker
            label="Add an animal"
            pick={(species) => setWanted([...wanted, { species, number: String(species.group_least) }])}
          />
          <ul className="mt-3 grid gap-2">
            {wanted.map((row, i) => (
              <li key={`${row.species.key}-${i}`} className="flex items-center gap-3">
                <NumberBox
                  narrow
                  whole
                  label={`How many: ${row.species.common}`}
                  shown={row.number}
                  type={(number) => setWanted(wanted.map((w, j) => (j === i ? { ...w, number } : w)))}
                />
                <span className="flex-1">{row.species.common}</span>
                <Button
                  look="word"
                  aria-label={`Remove ${row.species.common}`}
                  onClick={() => setWanted(wanted.filter((_, j) => j !== i))}
                >
                  Remove
                </Button>
              </li>
            ))}
          </ul>
        </Tabs.Content>
        <Tabs.Content value="glass">
          <p className="mb-3 text-sm text-quiet">
            Inside measure of a box; other shapes and the water height follow on the tank’s stage.
          </p>
          <Sizes sizes={sizes} setSizes={setSizes} />
        </Tabs.Content>
      </Tabs.Root>
      <Problem error={start.error} />
      <div className="mt-6 flex justify-end">
        <Button look="strong" disabled={!ready || start.isPending} onClick={begin}>
          Start
        </Button>
      </div>
    </Dialog>
  );
}

const FIELD = "min-h-9 w-full border-b border-mark bg-transparent px-1 pointer-coarse:min-h-11";

interface SizesProps {
  sizes: Record<string, string>;
  setSizes: (sizes: Record<string, string>) => void;
}

function Sizes({ sizes, setSizes }: SizesProps) {
  const units = useUnits();
  const entries = useQuery(libraryQuery).data?.entries;
  return (
    <div className="grid grid-cols-3 gap-4">
      {SIZES.map((key) => (
        <div key={key}>
          <label htmlFor={`start-${key}`} className="block text-sm text-quiet">
            {entries?.[`tank.${key}`]?.label}, {units.unit("length").label}
          </label>
          <NumberBox
            id={`start-${key}`}
            shown={sizes[key] ?? ""}
            type={(text) => setSizes({ ...sizes, [key]: text })}
          />
        </div>
      ))}
    </div>
  );
}

function Problem({ error }: { error: Error | null }) {
  if (!error) return null;
  const fault = error instanceof Refused ? error.fault : undefined;
  const sentences = fault?.fields?.length
    ? fault.fields.map((field) => field.sentence)
    : fault
      ? [fault.sentence]
      : [];
  return (
    <div role="alert" className="mt-4 text-short">
      {sentences.length ? (
        sentences.map((sentence, i) => (
          <p key={i}>
            <Says sentence={sentence} />
          </p>
        ))
      ) : (
        <p>{error.message}</p>
      )}
    </div>
  );
}

type Start =
  | { from: "animals"; body: { name: string; animals: { species: string; number: number }[] } }
  | { from: "glass"; body: { name: string; tank: Tank } };

function useStart() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (start: Start) =>
      start.from === "animals"
        ? asked(client.POST("/api/systems/from-animals", { body: start.body }))
        : asked(client.POST("/api/systems/from-glass", { body: start.body })),
    onSuccess: async (system, start) => {
      await queries.invalidateQueries(ALL_SYSTEMS);
      const stage = start.from === "animals" ? "animals" : "tank";
      await navigate({ to: "/systems/$id/$stage", params: { id: String(system.id), stage } });
    },
  });
}
