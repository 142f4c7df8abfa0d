import { dayMonth } from "@/lib/shown/days";
import { memo, useMemo, useState } from "react";
import type { Known, Logged } from "@/api/client";
import { TimeChart, type TimeBand } from "@/ui/charts/TimeChart";
import { Select } from "@/ui/controls";
import { useUnits } from "@/ui/units";
import { useKnown } from "./log";
import { entryWords } from "./words";

const SPANS: [string, string][] = [
  ["28", "four weeks"],
  ["91", "three months"],
  ["365", "a year"],
  ["3660", "all of it"],
];
const DAY = 86_400_000;
const NOT_FROM_ZERO = ["ph", "temperature", "conductivity", "salinity"];

/** Courses by measure: days from now, levels in the core's unit. */
export type Bands = Record<string, TimeBand>;

/** Every measure that was read, one chart under the other over the same days. */
export const LogCharts = memo(function LogCharts({ log, bands }: { log: Logged[]; bands?: Bands }) {
  const known = useKnown();
  const [chosen, setSpan] = useState<string | null>(null);
  const [now] = useState(() => Date.now());
  const first = log[0];
  if (!known || !first) return null;
  const newest = log.filter((row) => row.entry.kind === "reading").at(-1) ?? first;
  const span = chosen ?? (now - new Date(newest.at).getTime() < 60 * DAY ? "91" : "365");
  const oldest = Math.min(new Date(first.at).getTime(), now - 7 * DAY);
  const start = Math.max(now - Number(span) * DAY, oldest);
  const read = known.measures.filter(({ key }) =>
    log.some(
      (row) => row.entry.kind === "reading" && row.entry.what === key && new Date(row.at).getTime() >= start,
    ),
  );
  return (
    <figure className="mb-5">
      <p className="mb-1 flex items-center gap-2 text-sm text-quiet">
        the last <Select label="Shown" value={span} options={SPANS} onChange={setSpan} />
      </p>
      {read.map((measure) => (
        <MeasureChart
          key={measure.key}
          band={bands?.[measure.key]}
          measure={measure}
          log={log}
          known={known}
          start={start}
          now={now}
        />
      ))}
      {read.length === 0 && <p className="text-quiet">Nothing was read in this time.</p>}
    </figure>
  );
});

interface MeasureProps {
  measure: Known["measures"][number];
  log: Logged[];
  band?: TimeBand;
  known: Known;
  start: number;
  now: number;
}

function MeasureChart({ measure, log, band, known, start, now }: MeasureProps) {
  const units = useUnits();
  const dayOf = (iso: string) => (new Date(iso).getTime() - start) / DAY;
  const bars = useMemo(
    () =>
      log
        .filter((row) => row.entry.kind === "reading" && row.entry.what === measure.key && row.low !== null)
        .map((row) => ({
          day: (new Date(row.at).getTime() - start) / DAY,
          low: units.shown(row.low!, measure.kind),
          high: row.high === null ? null : units.shown(row.high, measure.kind),
        })),
    [log, measure, start, units],
  );
  const drops = log
    .filter((row) => row.entry.kind !== "reading" && row.entry.kind !== "note")
    .map((row) => ({ day: dayOf(row.at), words: entryWords(row, known, units) }));
  const inside = bars.filter(({ day }) => day >= 0).length;
  return (
    <TimeChart
      label={measure.label}
      unit={units.unit(measure.kind).label}
      words={`${measure.label}: ${inside} readings.`}
      band={
        band && {
          days: band.days.map((day) => day + (now - start) / DAY),
          low: band.low.map((level) => units.shown(level, measure.kind)),
          middle: band.middle.map((level) => units.shown(level, measure.kind)),
          high: band.high.map((level) => units.shown(level, measure.kind)),
        }
      }
      bars={bars}
      drops={drops}
      from={0}
      to={(now - start) / DAY}
      tick={(day) => dayMonth(new Date(start + day * DAY))}
      height={112}
      fromZero={!NOT_FROM_ZERO.includes(measure.key)}
    />
  );
}
