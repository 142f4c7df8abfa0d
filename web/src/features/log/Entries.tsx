import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useDeferredValue, useState } from "react";
import { asked, client, type LogEntry } from "@/api/client";
import { Select } from "@/ui/controls";
import { isoHere, useKnown } from "@/ui/log/log";
import { dayWords, entryWords } from "@/ui/log/words";
import { useUnits } from "@/ui/units";

const ALL = "all";
const SPANS: [string, string][] = [
  [ALL, "any day"],
  ["7", "the last week"],
  ["30", "the last month"],
  ["365", "the last year"],
];

export interface Named {
  id: number;
  name: string;
}

/** Lines of all logs, the newest first; found by words, and by tank, kind and days. */
export function Entries({ systems }: { systems: Named[] }) {
  const known = useKnown();
  const units = useUnits();
  const [find, setFind] = useState("");
  const [system, setSystem] = useState(ALL);
  const [kind, setKind] = useState(ALL);
  const [days, setDays] = useState(ALL);
  const words = useDeferredValue(find.trim());
  const latest = useQuery({
    queryKey: ["log", "latest", system, kind, days, words],
    queryFn: ({ signal }) =>
      asked(
        client.GET("/api/log", {
          params: {
            query: {
              system: system === ALL ? [] : [Number(system)],
              kind: kind === ALL ? [] : [kind as LogEntry["kind"]],
              find: words,
              count: 200,
              ...(days !== ALL && { since: isoHere(daysAgo(Number(days))) }),
            },
          },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });
  const name = (id: number) => systems.find((row) => row.id === id)?.name ?? "";
  const rows = latest.data ?? [];
  const sought = [system, kind, days].some((one) => one !== ALL) || words !== "";
  return (
    <>
      <div role="search" className="mb-3 flex flex-wrap items-center gap-2">
        <input
          type="search"
          aria-label="Find in the log"
          placeholder="Find"
          value={find}
          onChange={(event) => setFind(event.target.value)}
          className="min-h-9 w-40 rounded-sm border border-line bg-paper px-2 pointer-coarse:min-h-11"
        />
        <Select
          label="Of which system"
          value={system}
          options={[
            ["", "all systems"],
            ...systems.map(({ id, name: of }): [string, string] => [String(id), of]),
          ]}
          onChange={setSystem}
        />
        <Select
          label="Of which kind"
          value={kind}
          options={[[ALL, "anything"], ...Object.entries(known?.kinds ?? {})]}
          onChange={setKind}
        />
        <Select label="Of which days" value={days} options={SPANS} onChange={setDays} />
      </div>
      {latest.isError && (
        <p role="alert" className="text-short">
          {latest.error.message}
        </p>
      )}
      {latest.data?.length === 0 && (
        <p>
          {sought
            ? "Nothing of that is written down."
            : "Nothing is written down yet. Readings and changes are found here, newest first."}
        </p>
      )}
      <ol aria-label="Latest entries" aria-busy={latest.isFetching}>
        {known &&
          rows.map((row, i) => (
            <li key={row.id}>
              {(i === 0 || dayWords(rows[i - 1]!.at) !== dayWords(row.at)) && (
                <h2 className="mt-3 text-sm font-semibold">{dayWords(row.at)}</h2>
              )}
              <span className="flex flex-wrap gap-x-3 border-b border-line/60 py-1">
                <Link
                  to="/systems/$id/$stage"
                  params={{ id: String(row.system_id), stage: "log" }}
                  className="w-44 shrink-0 font-semibold hover:text-edge-deep"
                >
                  {name(row.system_id)}
                </Link>
                <span className="min-w-0 flex-1">{entryWords(row, known, units)}</span>
              </span>
            </li>
          ))}
      </ol>
    </>
  );
}

export function daysAgo(days: number): Date {
  const at = new Date();
  at.setDate(at.getDate() - days);
  return at;
}
