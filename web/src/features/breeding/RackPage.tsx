import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { asked, client, type Rack, type RackWanted } from "@/api/client";
import { isoDay } from "@/lib/shown/days";
import { Button, Select } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { NumberLine } from "@/ui/fields/Lines";
import { RackDrawing } from "./RackDrawing";
import { RackShares } from "./RackShares";

const params = () => ({ query: { today: isoDay(new Date()) } });

/** The best use of a row of tanks: who gets which, under water, buyers, hours and power, and why. */
export function RackPage() {
  const queries = useQueryClient();
  const key = ["breeding", "rack"];
  const rack = useQuery({
    queryKey: key,
    queryFn: () => asked(client.GET("/api/breeding/rack", { params: params() })),
  });
  const ask = useMutation({
    mutationFn: (body: RackWanted) => asked(client.PUT("/api/breeding/rack", { params: params(), body })),
    onSuccess: (found) => queries.setQueryData(key, found),
  });
  const [before, setBefore] = useState<RackWanted[]>([]);
  const found = rack.data;
  const put = (change: Partial<RackWanted>) => {
    if (!found) return;
    setBefore((all) => [...all, found.wanted]);
    ask.mutate({ ...found.wanted, ...change });
  };
  const undo = () => {
    const last = before.at(-1);
    if (!last) return;
    setBefore((all) => all.slice(0, -1));
    ask.mutate(last);
  };
  const failed = rack.error ?? ask.error;
  return (
    <main className="px-4 pt-3 pb-10 sm:px-6" aria-busy={ask.isPending}>
      <header className="mb-3 flex min-h-9 flex-wrap items-center gap-3 pr-44">
        <h1 className="text-xl font-semibold">Rack plan</h1>
        <Link to="/breeding" className="text-edge-deep underline-offset-4 hover:underline">
          Breeding
        </Link>
        {before.length > 0 && (
          <Button look="word" onClick={undo}>
            Undo
          </Button>
        )}
      </header>
      {failed && (
        <p role="alert" className="mb-3 text-short">
          {failed.message}
        </p>
      )}
      {rack.isPending && <p className="text-quiet">Reckoning…</p>}
      {found?.plan ? (
        <>
          <p className="mb-1 text-lg leading-snug">
            <Says sentence={found.plan.result} />
            {!found.plan.proved && " Within a thousandth of the best there is."}
          </p>
          {found.plan.gains.map((gain, i) => (
            <p key={i} className="text-brass">
              <Says sentence={gain} />
            </p>
          ))}
        </>
      ) : (
        found && <p className="mb-3 max-w-prose">Say which tanks there are, and who may be bred in them.</p>
      )}
      {found && (
        <div className="mt-3 grid gap-x-8 lg:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)]">
          <div>
            {found.plan && <RackDrawing plan={found.plan} names={found.ventures} />}
            {found.plan && <RackShares plan={found.plan} />}
            <p className="mt-3 flex gap-4">
              {(["csv", "xlsx"] as const).map((form) => (
                <a
                  key={form}
                  className="text-edge-deep underline"
                  href={`/api/breeding/out/rack.${form}?today=${isoDay(new Date())}`}
                  download
                >
                  {form === "csv" ? "CSV" : "Spreadsheet"}
                </a>
              ))}
            </p>
          </div>
          <Wanted found={found} put={put} />
        </div>
      )}
    </main>
  );
}

/** The tanks, the kinds that may go in them, and what there is of hours and power. */
function Wanted({ found, put }: { found: Rack; put: (change: Partial<RackWanted>) => void }) {
  const { wanted, tanks, ventures } = found;
  const rows = wanted.tanks ?? [];
  const chosen = wanted.ventures ?? [];
  const caps = wanted.caps ?? [];
  const capOf = (id: number) => caps.find(({ venture }) => venture === id)?.tanks ?? null;
  const free = tanks.filter(({ id }) => !rows.some((row) => row.system === id));
  return (
    <section aria-label="What there is">
      <fieldset className="mb-4">
        <legend className="mb-1 text-sm font-semibold">Tanks</legend>
        {rows.map((row, i) => (
          <NumberLine
            key={row.system}
            label={tanks.find(({ id }) => id === row.system)?.name ?? `System ${row.system}`}
            kind="count"
            value={row.count}
            set={(count) =>
              count !== null &&
              put({
                tanks:
                  count < 1
                    ? rows.toSpliced(i, 1)
                    : rows.with(i, { ...row, count: Math.min(300, Math.round(count)) }),
              })
            }
          />
        ))}
        {free.length > 0 && (
          <p className="mt-2">
            <Select
              label="Tanks of another sort"
              value=""
              placeholder="Tanks of another sort"
              options={free.map(({ id, name }): [string, string] => [String(id), name])}
              onChange={(id) => put({ tanks: [...rows, { system: Number(id), count: 1 }] })}
            />
          </p>
        )}
      </fieldset>
      <fieldset className="mb-4">
        <legend className="mb-1 text-sm font-semibold">Who may be bred, and in how many tanks at most</legend>
        {ventures.map((venture) => {
          const on = chosen.includes(venture.id);
          return (
            <div key={venture.id} className="flex items-center gap-3">
              <input
                type="checkbox"
                aria-label={`${venture.name} may be bred`}
                checked={on}
                className="size-5 accent-edge"
                onChange={() =>
                  put({
                    ventures: on ? chosen.filter((id) => id !== venture.id) : [...chosen, venture.id],
                  })
                }
              />
              <div className="flex-1">
                <NumberLine
                  label={venture.name}
                  kind="count"
                  value={capOf(venture.id)}
                  set={(tanksAtMost) =>
                    put({
                      caps: [
                        ...caps.filter((cap) => cap.venture !== venture.id),
                        ...(tanksAtMost === null
                          ? []
                          : [{ venture: venture.id, tanks: Math.max(0, Math.round(tanksAtMost)) }]),
                      ],
                    })
                  }
                />
              </div>
            </div>
          );
        })}
      </fieldset>
      <fieldset>
        <legend className="mb-1 text-sm font-semibold">In a week there is</legend>
        <NumberLine
          label="Work, at most"
          kind="hours"
          value={wanted.hours_wk ?? null}
          set={(hours_wk) => put({ hours_wk })}
        />
        <NumberLine
          label="Power, at most"
          kind="energy"
          value={wanted.kwh_wk ?? null}
          set={(kwh_wk) => put({ kwh_wk })}
        />
        <NumberLine
          label="An hour counts"
          kind="money"
          value={wanted.hour_money ?? null}
          set={(hour_money) => put({ hour_money })}
        />
      </fieldset>
      <p className="mt-2 text-sm text-quiet">
        Left empty, nothing is bounded, and an hour counts as each venture says. A colony is as large as its
        tanks ask for: two tanks of a kind at least, and parts of tanks are shared out.
      </p>
    </section>
  );
}
