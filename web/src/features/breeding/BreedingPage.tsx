import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { useState } from "react";
import type { VentureName } from "@/api/client";
import { breedingQuery, deletedVenturesQuery } from "@/api/queries";
import { isoDay } from "@/lib/shown/days";
import { Button, Select } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { Told } from "@/ui/Told";
import { keptVentures } from "./session";
import { StartDialog } from "./StartDialog";
import { WorthRows } from "./WorthRows";

/** What is bred, compared in one sort of tank on one scale, and with leaving that tank as it is. */
export function BreedingPage() {
  const today = isoDay(new Date());
  const [system, setSystem] = useState<number | null>(null);
  const [starting, setStarting] = useState(false);
  const [told, setTold] = useState<{ words: string; undo: () => void } | null>(null);
  const found = useQuery({ ...breedingQuery(today, system), placeholderData: (last) => last });
  const deleted = useQuery(deletedVenturesQuery).data ?? [];
  const queries = useQueryClient();
  const navigate = useNavigate();
  const done = () => queries.invalidateQueries({ queryKey: ["breeding"] });
  const restore = useMutation({
    mutationFn: (id: number) => keptVentures.bringBack(id),
    onSuccess: () => {
      setTold(null);
      return done();
    },
  });
  const remove = useMutation({
    mutationFn: ({ id }: VentureName) => keptVentures.putAway(id),
    onSuccess: (_, { id, name }) => {
      setTold({ words: `${name} is put away.`, undo: () => restore.mutate(id) });
      return done();
    },
  });
  const failed = found.error ?? remove.error ?? restore.error;
  const side = found.data?.side;
  const lost = (found.data?.ventures ?? []).filter(({ id }) => !side?.rows.some((row) => row.venture === id));
  const query = `today=${today}${side ? `&system=${side.system}` : ""}`;
  return (
    <main className="max-w-5xl px-4 pt-3 pb-10 sm:px-6">
      <header className="mb-3 flex min-h-9 flex-wrap items-center gap-3 pr-44">
        <h1 className="text-xl font-semibold">Breeding</h1>
        <Button look="strong" onClick={() => setStarting(true)}>
          Breed another
        </Button>
        <Link to="/breeding/rack" className="font-semibold text-edge-deep underline-offset-4 hover:underline">
          Rack plan
        </Link>
      </header>
      {failed && (
        <p role="alert" className="mb-4 text-short">
          {failed.message}
        </p>
      )}
      {told && <Told {...told} />}
      {found.isPending && <p className="text-quiet">Reckoning…</p>}
      {found.data?.ventures.length === 0 && (
        <p className="max-w-prose">
          Nothing is bred yet. Choose a kind and a tank: Loquen reckons what a colony brings, when, and what
          the glass, food, heat, water and hours cost.
        </p>
      )}
      {side && (
        <section aria-label="Compared" aria-busy={found.isPlaceholderData}>
          <div className="mb-2 flex flex-wrap items-center gap-3">
            <span className="text-quiet">In tanks like</span>
            <Select
              label="Compared in tanks like"
              value={String(side.system)}
              options={(found.data?.tanks ?? []).map(({ id, name }): [string, string] => [String(id), name])}
              onChange={(id) => setSystem(Number(id))}
            />
          </div>
          <p className="mb-4 text-lg leading-snug">
            <Says sentence={side.result} />
          </p>
          <WorthRows
            rows={side.rows}
            names={found.data?.ventures ?? []}
            remove={(venture) => remove.mutate(venture)}
          />
          {lost.map((venture) => (
            <p key={venture.id} className="flex flex-wrap items-center gap-3 border-b border-line py-2">
              <b>{venture.name}</b> can not be reckoned: its kind is not in the library, or its document can
              not be read.
              <Button look="word" onClick={() => remove.mutate(venture)}>
                Put away
              </Button>
            </p>
          ))}
          <p className="mt-4 max-w-prose text-sm text-quiet">
            Bars reach from everything uncertain at its bad end together to everything at its good end. Where
            they reach into the best one’s, nobody can say yet which is better.
          </p>
          <p className="mt-3 flex gap-4">
            <a className="text-edge-deep underline" href={`/api/breeding/out/worth.csv?${query}`} download>
              CSV
            </a>
            <a className="text-edge-deep underline" href={`/api/breeding/out/worth.xlsx?${query}`} download>
              Spreadsheet
            </a>
          </p>
        </section>
      )}
      {deleted.length > 0 && (
        <section aria-labelledby="put-away" className="mt-8 text-sm text-quiet">
          <h2 id="put-away" className="font-semibold">
            Put away
          </h2>
          <ul>
            {deleted.map(({ id, name }) => (
              <li key={id} className="flex items-center gap-2">
                {name}
                <Button look="word" onClick={() => restore.mutate(id)}>
                  Bring back
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
      {starting && (
        <StartDialog
          tanks={found.data?.tanks ?? []}
          close={() => setStarting(false)}
          started={(id) => {
            void done();
            void navigate({ to: "/breeding/$id/$stage", params: { id: String(id), stage: "colony" } });
          }}
        />
      )}
    </main>
  );
}
