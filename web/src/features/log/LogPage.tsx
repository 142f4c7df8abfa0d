import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { systemNamesQuery } from "@/api/queries";
import { browserStore } from "@/lib/browser/browserStore";
import { Button, Select } from "@/ui/controls";
import { logQuery } from "@/ui/log/log";
import { ReadingDialog } from "@/ui/log/ReadingDialog";
import { useShortcuts } from "@/ui/shortcuts";
import { Unread } from "@/ui/unread/Unread";
import { Across } from "./Across";
import { Entries } from "./Entries";
import { LastReadings } from "./LastReadings";

const REMEMBERED = "loquen.log.system";
const VIEWS = [
  ["entries", "What happened"],
  ["last", "Last readings"],
  ["chart", "Through time"],
] as const;
type View = (typeof VIEWS)[number][0];

/** The log across all systems: what happened, what was read last where, how something went in several of them. */
export function LogPage() {
  const systems = useQuery(systemNamesQuery).data ?? [];
  const [view, setView] = useState<View>("entries");
  const [chosen, setChosen] = useState(() => Number(browserStore.getItem(REMEMBERED)));
  const [reading, setReading] = useState(false);
  const system = systems.find(({ id }) => id === chosen) ?? systems[0];
  const log = useQuery({ ...logQuery(system?.id ?? 0), enabled: system !== undefined }).data ?? [];
  useShortcuts({ r: () => system && setReading(true) });
  return (
    <main className={`px-4 pt-3 pb-10 sm:px-6 ${view === "last" ? "" : "max-w-3xl"}`}>
      <header className="mb-4 flex min-h-9 flex-wrap items-center gap-3 pr-44">
        <h1 className="text-xl font-semibold">Log</h1>
      </header>
      <Unread place="log" />
      {system && (
        <p className="mb-4 flex flex-wrap items-center gap-2">
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
      <div role="group" aria-label="Shown" className="mb-3 flex flex-wrap gap-4 border-b border-line">
        {VIEWS.map(([key, words]) => (
          <button
            key={key}
            type="button"
            aria-pressed={view === key}
            onClick={() => setView(key)}
            className="min-h-9 border-b-2 border-transparent text-quiet hover:text-ink aria-pressed:border-edge aria-pressed:font-semibold aria-pressed:text-ink pointer-coarse:min-h-11"
          >
            {words}
          </button>
        ))}
      </div>
      {view === "entries" && <Entries systems={systems} />}
      {view === "last" && <LastReadings />}
      {view === "chart" && <Across systems={systems} />}
      {reading && system && <ReadingDialog id={system.id} log={log} close={() => setReading(false)} />}
    </main>
  );
}
