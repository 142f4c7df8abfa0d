import { dayMonth } from "@/lib/shown/days";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { NitratePage } from "@/api/client";
import { TimeChart } from "@/ui/charts/TimeChart";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { EntryDialog } from "@/ui/log/EntryDialog";
import { logQuery } from "@/ui/log/log";
import { ReadingDialog } from "@/ui/log/ReadingDialog";
import { useShortcuts } from "@/ui/shortcuts";
import { useUnits } from "@/ui/units";
import { useForecast } from "../../forecast";
import { useSession } from "../../context";
import { AgainstAnother } from "./AgainstAnother";
import { Levers } from "./Levers";
import { WhatTheLogSays } from "./WhatTheLogSays";

/** Nitrate from the last reading on: the day the limit is passed, what each lever is worth, what the log says. */
export function NitrateStage() {
  const id = useSession((state) => state.id);
  const log = useQuery(logQuery(id)).data ?? [];
  const [open, setOpen] = useState<"reading" | "change" | "experiment" | null>(null);
  const close = () => setOpen(null);
  const { data, error, isFetching } = useForecast("nitrate");
  useShortcuts({ r: () => setOpen("reading") });
  return (
    <>
      <div aria-live="polite" aria-busy={isFetching}>
        {error && (
          <p role="alert" className="mb-3 text-short">
            {error.message}
          </p>
        )}
        {!data && !error && <p className="mb-4 text-quiet">Reading the log…</p>}
        {data && (
          <p className={`mb-3 text-lg leading-snug ${isFetching ? "opacity-60" : ""}`}>
            <Says sentence={data.result} />
          </p>
        )}
      </div>
      <p className="mb-4 flex flex-wrap gap-2">
        <Button look="strong" onClick={() => setOpen("reading")}>
          Enter readings
        </Button>
        <Button onClick={() => setOpen("change")}>Water was changed</Button>
        <Button onClick={() => setOpen("experiment")}>Try something</Button>
      </p>
      {data && (
        <>
          {data.asks.map((sentence, i) => (
            <p key={i} role="note" className="mb-2 border-l-3 border-brass py-1 pl-3">
              <Says sentence={sentence} />
            </p>
          ))}
          <Chart page={data} />
          {data.grown && (
            <p className="mb-4 text-quiet">
              <Says sentence={data.grown} />
            </p>
          )}
          <Levers page={data} />
          <WhatTheLogSays page={data} />
          <section aria-label="To try something" className="mb-5">
            <h3 className="font-semibold">To see whether something works</h3>
            <p>
              <Says sentence={data.design.sentence} />
            </p>
          </section>
          <AgainstAnother />
        </>
      )}
      {open === "reading" && <ReadingDialog id={id} log={log} first="nitrate" close={close} />}
      {open === "change" && <EntryDialog id={id} start={{ kind: "change" }} close={close} />}
      {open === "experiment" && <EntryDialog id={id} start={{ kind: "experiment" }} close={close} />}
    </>
  );
}

function Chart({ page }: { page: NitratePage }) {
  const units = useUnits();
  const shown = (level: number) => units.shown(level, "nitrate");
  const { course } = page;
  const oldest = Math.min(0, ...page.readings.map(({ day }) => day), ...page.changes);
  const today = new Date();
  const tick = (day: number) =>
    dayMonth(new Date(today.getFullYear(), today.getMonth(), today.getDate() + day));
  const words =
    `Nitrate: ${page.readings.length} readings, then four months by the plan's regime; ` +
    `limit ${units.text(page.limit, "nitrate")}, change water ${units.text(page.source, "nitrate")}.`;
  return (
    <figure className="mb-5">
      <TimeChart
        label="Nitrate"
        unit={units.unit("nitrate").label}
        words={words}
        band={{
          days: course.days,
          low: course.low.map(shown),
          middle: course.middle.map(shown),
          high: course.high.map(shown),
        }}
        bars={page.readings.map(({ day, low, high }) => ({
          day,
          low: shown(low),
          high: high === null ? null : shown(high),
        }))}
        drops={page.changes.map((day) => ({ day, words: "changed" }))}
        limit={{ at: shown(page.limit), words: "your limit" }}
        floor={{ at: shown(page.source), words: "change water" }}
        today={0}
        from={Math.min(oldest - 1, -7)}
        to={90}
        tick={tick}
        height={210}
      />
      <figcaption className="text-sm text-quiet">
        Bars are what was read, over all that it may mean; drops are the changes made. From today on by the
        plan’s regime.
      </figcaption>
    </figure>
  );
}
