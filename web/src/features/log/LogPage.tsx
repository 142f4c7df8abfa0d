import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { asked, client } from "@/api/client";
import { systemNamesQuery } from "@/api/queries";
import { Button, Select } from "@/ui/controls";
import { browserStore } from "@/lib/browser/browserStore";
import { logQuery, useKnown } from "@/ui/log/log";
import { ReadingDialog } from "@/ui/log/ReadingDialog";
import { dayWords, entryWords } from "@/ui/log/words";
import { useShortcuts } from "@/ui/shortcuts";
import { useUnits } from "@/ui/units";
import { Unread } from "@/ui/unread/Unread";

const REMEMBERED = "loquen.log.system";

/** The log across all systems: what was read and done last, and readings for any of them. */
export function LogPage() {
  const systems = useQuery(systemNamesQuery).data ?? [];
  const latest = useQuery({ queryKey: ["log", "latest"], queryFn: () => asked(client.GET("/api/log")) });
  const known = useKnown();
  const units = useUnits();
  const [chosen, setChosen] = useState(() => Number(browserStore.getItem(REMEMBERED)));
  const [reading, setReading] = useState(false);
  const system = systems.find(({ id }) => id === chosen) ?? systems[0];
  const log = useQuery({ ...logQuery(system?.id ?? 0), enabled: system !== undefined }).data ?? [];
  useShortcuts({ r: () => system && setReading(true) });
  const name = (id: number) => systems.find((row) => row.id === id)?.name ?? "";
  const rows = latest.data ?? [];
  return (
    <main className="max-w-3xl px-4 pt-3 pb-10 sm:px-6">
      <header className="mb-4 flex min-h-9 flex-wrap items-center gap-3 pr-44">
        <h1 className="text-xl font-semibold">Log</h1>
      </header>
      <Unread place="log" />
      {system && (
        <p className="mb-5 flex flex-wrap items-center gap-2">
          <Button look="strong" className="min-h-12 px-5" onClick={() => setReading(true)}>
            Enter readings
          </Button>
          <span className="text-quiet">of</span>
          <Select
            label="System"
            value={String(system.id)}
            options={systems.map((row) => [String(row.id), row.name])}
            onChange={(id) => {
              browserStore.setItem(REMEMBERED, id);
              setChosen(Number(id));
            }}
          />
        </p>
      )}
      {latest.isError && (
        <p role="alert" className="text-short">
          {latest.error.message}
        </p>
      )}
      {latest.data?.length === 0 && (
        <p>Nothing is written down yet. Readings and changes are found here, newest first.</p>
      )}
      <ol aria-label="Latest entries">
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
      {reading && system && <ReadingDialog id={system.id} log={log} close={() => setReading(false)} />}
    </main>
  );
}
