import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { Tabs } from "radix-ui";
import { useState } from "react";
import {
  asked,
  client,
  Refused,
  type FirstWanted,
  type Plan,
  type Proposal,
  type Species,
  type Tank,
} from "@/api/client";
import { ALL_SYSTEMS, libraryQuery } from "@/api/queries";
import { parsed } from "@/lib/shown/quantity";
import { Button, Dialog } from "@/ui/controls";
import { NumberBox } from "@/ui/fields/NumberBox";
import { Says } from "@/ui/figures/Says";
import { SpeciesPicker } from "@/ui/fields/SpeciesPicker";
import { useUnits } from "@/ui/units";
import { nameOf, Proposals } from "./Proposals";
import { asWanted, NOWHERE, TapFields, type Where, WhereFields } from "./WhereFields";

interface Wanted {
  species: Species;
  number: string;
}

const SIZES = ["tank_length_cm", "tank_width_cm", "tank_height_cm"] as const;
const TAB =
  "min-h-9 border-b-2 border-transparent px-1 data-[state=active]:border-edge data-[state=active]:font-semibold";

/** A new system: who is to live in it and where, answered with whole plans; or the tank there is. */
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
  const [where, setWhere] = useState<Where>(NOWHERE);
  const units = useUnits();
  const start = useStart();
  const first = useFirst();
  const called = name.trim() || (wanted[0]?.species.common ?? "New system");
  const glass = () => {
    const size = (text: string) => {
      const value = parsed(text);
      return (value === null ? text : units.base(value, "length")) as number;
    };
    return Object.fromEntries(SIZES.map((key) => [key, size(sizes[key] ?? "")])) as Partial<Tank> as Tank;
  };
  const begin = () => {
    start.reset();
    if (from === "glass" && wanted.length === 0) {
      start.mutate({ from: "glass", body: { name: called, tank: glass() } });
      return;
    }
    const count = (text: string) => (parsed(text) ?? text) as number;
    first.ask({
      name: called,
      animals: wanted.map(({ species, number }) => ({ species: species.key, number: count(number) })),
      tank: from === "glass" ? glass() : null,
      ...asWanted(where, units),
    });
  };
  const ready =
    (from === "animals" && wanted.length > 0) ||
    (from === "glass" && SIZES.every((key) => sizes[key]?.trim()));
  const found = first.data;
  const choose = (chosen: Proposal, others: Proposal[]) =>
    start.mutate({
      from: "plan",
      body: {
        plan: chosen.plan,
        variants: others.map((other) => ({ name: `${called}, ${nameOf(other)}`, plan: other.plan })),
      },
    });
  if (found && found.proposals.length > 0) {
    return (
      <Dialog title={`${called}: choose a plan`} open={open} onOpenChange={onOpenChange} widest>
        <p className="mb-4 text-quiet">
          {found.proposals.length > 1
            ? "Each holds all that is in reach, and is the least of something. Those that you do not take stay as variants."
            : "It holds all that is in reach, and nothing takes less room, work or power."}
        </p>
        <Proposals proposals={found.proposals} busy={start.isPending} start={choose} />
        <Problem error={start.error} />
        <div className="mt-6">
          <Button onClick={first.reset}>Back</Button>
        </div>
      </Dialog>
    );
  }
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
            Up to three whole plans for them full grown: with least room, least work, least power.
          </p>
        </Tabs.Content>
        <Tabs.Content value="glass">
          <p className="mb-3 text-sm text-quiet">
            Inside measure of a box; other shapes and the water height follow on the tank’s stage. With
            animals, it is fitted out for them; without, its page says what it would hold.
          </p>
          <Sizes sizes={sizes} setSizes={setSizes} />
        </Tabs.Content>
      </Tabs.Root>
      <div className="mt-4">
        <SpeciesPicker
          label="Add an animal"
          pick={(species) => setWanted([...wanted, { species, number: String(species.group_least) }])}
        />
      </div>
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
      {wanted.length > 0 && (
        <>
          <TapFields where={where} setWhere={setWhere} />
          <WhereFields where={where} setWhere={setWhere} />
        </>
      )}
      {found && found.why.length > 0 && (
        <ul role="alert" className="mt-4 grid gap-1 text-short">
          {found.why.map((why, i) => (
            <li key={i}>
              <Says sentence={why} />
            </li>
          ))}
        </ul>
      )}
      <Problem error={start.error ?? first.error} />
      <div className="mt-6 flex items-center justify-end gap-4">
        {first.slow && (
          <span role="status" className="flex-1 text-sm text-quiet">
            Trying tanks, filters and changes…
          </span>
        )}
        {first.asking && <Button onClick={first.stop}>Stop</Button>}
        <Button look="strong" disabled={!ready || start.isPending || first.asking} onClick={begin}>
          {wanted.length > 0 ? "Propose plans" : "Start"}
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
  | { from: "plan"; body: { plan: Plan; variants: { name: string; plan: Plan }[] } }
  | { from: "glass"; body: { name: string; tank: Tank } };

function useStart() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (start: Start) =>
      start.from === "plan"
        ? asked(client.POST("/api/systems", { body: start.body }))
        : asked(client.POST("/api/systems/from-glass", { body: start.body })),
    onSuccess: async (system, start) => {
      await queries.invalidateQueries(ALL_SYSTEMS);
      const stage = start.from === "plan" ? "animals" : "tank";
      await navigate({ to: "/systems/$id/$stage", params: { id: String(system.id), stage } });
    },
  });
}

const SLOW_MS = 300;

/** Plans asked for; said when it takes longer than a glance, and stopped when somebody wants to. */
function useFirst() {
  const [asking, setAsking] = useState<AbortController | null>(null);
  const [slow, setSlow] = useState(false);
  const first = useMutation({
    mutationFn: async (body: FirstWanted) => {
      const stop = new AbortController();
      setAsking(stop);
      const late = setTimeout(() => setSlow(true), SLOW_MS);
      try {
        return await asked(client.POST("/api/plan/first", { body, signal: stop.signal }));
      } catch (cause) {
        if (stop.signal.aborted) return null;
        throw cause;
      } finally {
        clearTimeout(late);
        setSlow(false);
        setAsking(null);
      }
    },
  });
  return {
    data: first.data ?? null,
    error: first.error,
    asking: first.isPending,
    slow,
    ask: first.mutate,
    stop: () => asking?.abort(),
    reset: first.reset,
  };
}
