import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useState } from "react";
import { asked, client, type LogSeries } from "@/api/client";
import { dayMonth, monthYear } from "@/lib/shown/days";
import { Select } from "@/ui/controls";
import { Frame, type Plot } from "@/ui/charts/Frame";
import { spaced } from "@/ui/charts/labels";
import { ticks } from "@/ui/charts/TimeChart";
import { isoHere, useKnown } from "@/ui/log/log";
import { useUnits } from "@/ui/units";
import { daysAgo, type Named } from "./Entries";

const DAY = 86_400_000;
const SPANS: [string, string][] = [
  ["30", "a month"],
  ["120", "four months"],
  ["365", "a year"],
];
const FIRST_SHOWN = 3;
const LINES = ["var(--color-edge)", "var(--color-brass)", "var(--color-short)", "var(--color-ink)"];
const DASHES = ["", "6 3", "2 3"];

/** How one thing was read in any of the tanks, on one chart. */
export function Across({ systems }: { systems: Named[] }) {
  const known = useKnown();
  const [measure, setMeasure] = useState("nitrate");
  const [days, setDays] = useState("120");
  const [picked, setPicked] = useState<number[] | null>(null);
  const last = useQuery({
    queryKey: ["log", "last"],
    queryFn: () => asked(client.GET("/api/log/last")),
  }).data;
  const read = (last?.rows ?? []).filter(({ readings }) => readings.some((one) => one.measure === measure));
  const chosen = picked ?? read.slice(0, FIRST_SHOWN).map(({ system_id }) => system_id);
  const found = useQuery({
    queryKey: ["log", "series", measure, days, chosen],
    queryFn: ({ signal }) =>
      asked(
        client.GET("/api/log/series", {
          params: { query: { measure, system: chosen, since: isoHere(daysAgo(Number(days))) } },
          signal,
        }),
      ),
    enabled: chosen.length > 0,
    placeholderData: keepPreviousData,
  });
  if (!known || !last) return <p className="text-quiet">Reading the logs…</p>;
  const measures = known.measures.filter(({ key }) => last.measures.includes(key));
  if (measures.length === 0) return <p>Nothing was read yet.</p>;
  const kind = known.measures.find(({ key }) => key === measure);
  const toggle = (id: number) =>
    setPicked(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
  return (
    <>
      <p className="mb-3 flex flex-wrap items-center gap-2">
        <Select
          label="What"
          value={measure}
          options={measures.map(({ key, label }) => [key, label])}
          onChange={(key) => {
            setMeasure(key);
            setPicked(null);
          }}
        />
        <span className="text-quiet">over</span>
        <Select label="How long" value={days} options={SPANS} onChange={setDays} />
      </p>
      {found.isError && (
        <p role="alert" className="text-short">
          {found.error.message}
        </p>
      )}
      {chosen.length > 0 && found.data && kind && (
        <Lines rows={found.data.rows} days={Number(days)} label={kind.label} kind={kind.kind} />
      )}
      <fieldset className="mt-3">
        <legend className="mb-1 text-sm font-semibold">Tanks</legend>
        <ul className="grid gap-x-6 sm:grid-cols-2">
          {systems.map(({ id, name }) => {
            const any = read.some(({ system_id }) => system_id === id);
            return (
              <li key={id}>
                <label
                  className={`flex min-h-8 items-center gap-2 pointer-coarse:min-h-11 ${any ? "" : "text-quiet"}`}
                >
                  <input
                    type="checkbox"
                    className="accent-edge"
                    checked={chosen.includes(id)}
                    disabled={!any}
                    onChange={() => toggle(id)}
                  />
                  {name}
                  {!any && <span className="text-xs">never read</span>}
                </label>
              </li>
            );
          })}
        </ul>
      </fieldset>
    </>
  );
}

interface LinesProps {
  rows: LogSeries[];
  days: number;
  label: string;
  kind: string;
}

/** A line a tank through the middles of its readings, each reading as a bar over all that it may mean. */
function Lines({ rows, days, label, kind }: LinesProps) {
  const units = useUnits();
  const plot: Plot = { width: 640, height: 260, left: 44, right: 150, top: 24, bottom: 22 };
  const start = daysAgo(days).getTime();
  const series = rows
    .filter(({ points }) => points.length > 0)
    .map(({ name, points }) => ({
      name,
      points: points.map(({ at, low, high }) => ({
        day: (new Date(at).getTime() - start) / DAY,
        low: units.shown(low, kind),
        high: units.shown(high ?? low * 1.15, kind),
      })),
    }));
  if (series.length === 0) return <p>None of these was read in that time.</p>;
  const all = series.flatMap(({ points }) => points);
  const top = Math.max(...all.map(({ high }) => high), 1e-6);
  const least = Math.min(...all.map(({ low }) => low));
  const bottom = least < 0.5 * top ? 0 : least - 0.1 * (top - least || top);
  const x = scaleLinear([0, days], [plot.left, plot.width - plot.right]);
  const y = scaleLinear([bottom, top], [plot.height - plot.bottom, plot.top]).nice(4);
  const middle = ({ low, high }: { low: number; high: number }) => (low + high) / 2;
  const ends = spaced(series.map(({ points }) => y(middle(points.at(-1)!))));
  const short = (name: string) => (name.length > 20 ? `${name.slice(0, 19)}…` : name);
  return (
    <Frame
      plot={plot}
      y={y}
      unit={`${label}, ${units.unit(kind).label}`}
      words={`${label} of ${series.map(({ name, points }) => `${name}: ${points.length} readings`).join(", ")}.`}
      xTicks={ticks(0, days).map((day) => {
        const at = new Date(start + day * DAY);
        return [x(day), days > 200 ? monthYear(at) : dayMonth(at)];
      })}
    >
      {series.map(({ name, points }, i) => {
        const colour = LINES[i % LINES.length]!;
        const dash = DASHES[Math.floor(i / LINES.length) % DASHES.length]!;
        return (
          <g key={name}>
            {points.map(({ day, low, high }, n) => (
              <path
                key={n}
                d={`M${x(day)} ${y(low)}V${Math.min(y(high), y(low) - 2)}`}
                stroke={colour}
                strokeWidth={3}
                opacity={0.3}
              />
            ))}
            <path
              d={
                line<(typeof points)[number]>(
                  ({ day }) => x(day),
                  (point) => y(middle(point)),
                )(points) ?? ""
              }
              fill="none"
              stroke={colour}
              strokeWidth={1.6}
              strokeDasharray={dash}
            />
            <path
              d={`M${x(points.at(-1)!.day)} ${y(middle(points.at(-1)!))}L${plot.width - plot.right + 4} ${ends[i]}`}
              stroke={colour}
              strokeWidth={0.6}
              opacity={0.6}
            />
            <text x={plot.width - plot.right + 7} y={ends[i]! + 4} fontSize={11} fill={colour}>
              {short(name)}
            </text>
          </g>
        );
      })}
    </Frame>
  );
}
