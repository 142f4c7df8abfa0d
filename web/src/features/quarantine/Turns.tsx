import { dayMonth } from "@/lib/shown/days";
import type { Newcomers } from "@/api/client";
import { dayOn, shortDay } from "@/lib/shown/days";
import { useNarrow } from "@/ui/useNarrow";

const ROW = 34;
const TOP = 22;
const MS = 86_400_000;
const number = (day: string) => Date.parse(`${day}T12:00`) / MS;

interface Bar {
  tub: number;
  from: string;
  to: string;
  words: string;
  planned: boolean;
  ready: boolean;
}

/** Tubs one under the other, days to the right: who is in them and who comes next, courses as a dashed line under it. */
export function Turns({ found }: { found: Newcomers }) {
  const narrow = useNarrow();
  const width = narrow ? 430 : 900;
  const left = narrow ? 56 : 96;
  const bars = barsOf(found);
  const first = Math.min(number(found.today) - 7, ...bars.map(({ from }) => number(from)));
  const last = Math.max(number(found.today) + 28, ...bars.map(({ to }) => number(to))) + 3;
  const x = (day: number) => left + ((day - first) / (last - first)) * (width - left - 8);
  const height = TOP + found.tubs.length * ROW + 24;
  const step = [7, 14, 28, 56].find((days) => (last - first) / days <= (narrow ? 4 : 9)) ?? 91;
  const marks = Array.from({ length: Math.ceil((last - first) / step) }, (_, i) =>
    dayOn(found.today, Math.round(first - number(found.today)) + i * step),
  );
  const now = x(number(found.today));
  return (
    <svg
      role="img"
      aria-label={`Tubs through time: ${bars.map((bar) => `${bar.words}, ${tubName(found, bar.tub)}, until ${shortDay(bar.to)}`).join("; ") || "all empty"}.`}
      viewBox={`0 0 ${width} ${height}`}
      className="w-full"
    >
      {marks.map((day) => (
        <g key={day}>
          <path d={`M${x(number(day))} ${TOP}V${height - 20}`} stroke="var(--color-line)" strokeWidth={0.8} />
          <text
            x={x(number(day))}
            y={height - 6}
            textAnchor="middle"
            fontSize={11}
            className="num"
            fill="var(--color-quiet)"
          >
            {dayMonth(new Date(`${day}T12:00`))}
          </text>
        </g>
      ))}
      {found.tubs.map((tub, i) => (
        <g key={tub.system_id}>
          <path d={`M0 ${TOP + (i + 1) * ROW}H${width}`} stroke="var(--color-line)" strokeWidth={0.8} />
          <text x={0} y={TOP + i * ROW + 21} fontSize={13} fontWeight={600} fill="var(--color-ink)">
            {tub.name.length > left / 8 ? `${tub.name.slice(0, left / 8 - 1)}…` : tub.name}
          </text>
          {tub.courses.map((row) => (
            <path
              key={row.id}
              d={`M${x(number(row.course.begun))} ${TOP + (i + 1) * ROW - 4}H${x(number(row.ends) + 1)}`}
              stroke="var(--color-brass)"
              strokeWidth={3}
              strokeDasharray="5 3"
            >
              <title>{row.course.product}</title>
            </path>
          ))}
        </g>
      ))}
      {bars.map((bar, i) => {
        const row = found.tubs.findIndex(({ system_id }) => system_id === bar.tub);
        const from = x(number(bar.from));
        const wide = x(number(bar.to)) - from;
        const most = Math.floor(wide / 6.6);
        return (
          <g key={i}>
            <rect
              x={from}
              y={TOP + row * ROW + 5}
              width={Math.max(2, wide)}
              height={ROW - 14}
              fill={bar.planned ? "none" : "var(--color-water-deep)"}
              stroke="var(--color-edge)"
              strokeWidth={bar.planned ? 1 : 0.8}
              strokeDasharray={bar.planned ? "4 3" : undefined}
            />
            <text x={from + 5} y={TOP + row * ROW + 20} fontSize={12} fill="var(--color-ink)">
              {bar.words.length <= most ? bar.words : `${bar.words.slice(0, Math.max(0, most - 1))}…`}
            </text>
          </g>
        );
      })}
      <path d={`M${now} ${TOP - 6}V${height - 20}`} stroke="var(--color-ink)" strokeWidth={1} />
      <text x={now + 3} y={TOP - 8} fontSize={11} fill="var(--color-ink)">
        today
      </text>
    </svg>
  );
}

const tubName = (found: Newcomers, id: number) =>
  found.tubs.find(({ system_id }) => system_id === id)?.name ?? "";

/** A bar for those in each tub, and one for each turn to come. */
function barsOf(found: Newcomers): Bar[] {
  const bars: Bar[] = [];
  for (const tub of found.tubs) {
    if (!tub.release || tub.waits.length === 0) continue;
    const from = tub.waits.map(({ since }) => since).sort()[0] ?? found.today;
    const words = tub.waits.map((row) => `${row.count} ${row.common}`).join(", ");
    const to = tub.release > found.today ? tub.release : found.today;
    bars.push({ tub: tub.system_id, from, to, words, planned: false, ready: tub.ready });
  }
  const turns = new Map<string, Bar>();
  for (const row of found.arriving) {
    if (row.tub === null || !row.enters || !row.leaves) continue;
    const key = `${row.tub} ${row.enters}`;
    const words = `${row.arriving.number} ${row.common}`;
    const known = turns.get(key);
    if (known) known.words += `, ${words}`;
    else
      turns.set(key, { tub: row.tub, from: row.enters, to: row.leaves, words, planned: true, ready: false });
  }
  return [...bars, ...turns.values()];
}
