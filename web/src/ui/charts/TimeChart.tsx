import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import type { ReactNode } from "react";
import { Frame, LimitLine, type Plot } from "./Frame";

export interface TimeBand {
  days: readonly number[];
  low: readonly number[];
  middle: readonly number[];
  high: readonly number[];
}

export interface TimeBar {
  day: number;
  low: number;
  /** None at the top of a chart: the bar goes on upwards. */
  high: number | null;
}

interface TimeChartProps {
  label: string;
  unit: string;
  words: string;
  /** Levels as they are shown. */
  band?: TimeBand | null;
  bars: TimeBar[];
  drops?: { day: number; words: string }[];
  limit?: { at: number; words: string } | null;
  floor?: { at: number; words: string } | null;
  today?: number | null;
  from: number;
  to: number;
  tick: (day: number) => string;
  height?: number;
  colour?: string;
  /** Whether nothing of it is a level worth showing: not so for temperature or pH. */
  fromZero?: boolean;
}

/** A level through time, in the hand of all such charts: forecast as a band that widens, readings as bars over their
 * interval, changes as drops at the top, today as an upright hairline. */
export function TimeChart(props: TimeChartProps) {
  const { label, unit, words, band, bars, drops = [], limit, floor, today, from, to, tick } = props;
  const { height = 132, colour = "var(--color-edge)", fromZero = true } = props;
  const plot: Plot = { width: 640, height, left: 44, right: 92, top: 24, bottom: 22 };
  const tops = [
    ...(band?.high ?? []),
    ...bars.map(({ low, high }) => high ?? low * 1.15),
    (limit?.at ?? 0) * 1.1,
    floor?.at ?? 0,
  ];
  const top = Math.max(...tops, 1e-6);
  const x = scaleLinear([from, Math.max(to, from + 1)], [plot.left, plot.width - plot.right]);
  const least = Math.min(...(band?.low ?? []), ...bars.map(({ low }) => low), top);
  const bottom = fromZero ? 0 : least - 0.15 * Math.max(top - least, 0.05 * top);
  const y = scaleLinear([bottom, top + 0.05 * (top - bottom)], [plot.height - plot.bottom, plot.top]).nice(4);
  const at = (day: number) => x(day);
  const inside = band
    ? band.days.map((day, i) => [day, i] as const).filter(([day]) => day >= from && day <= to)
    : [];
  const path = (levels: readonly number[]) =>
    line<readonly [number, number]>(
      ([day]) => at(day),
      ([, i]) => y(levels[i] ?? bottom),
    )(inside) ?? "";
  const spread =
    band &&
    area<readonly [number, number]>(
      ([day]) => at(day),
      ([, i]) => y(band.low[i] ?? bottom),
      ([, i]) => y(band.high[i] ?? bottom),
    )(inside);
  return (
    <Frame
      plot={plot}
      y={y}
      words={words}
      unit={`${label}, ${unit}`}
      xTicks={ticks(from, to).map((day) => [at(day), tick(day)])}
    >
      {spread && <path d={spread} fill={colour} opacity={0.16} />}
      {band && <path d={path(band.middle)} fill="none" stroke={colour} strokeWidth={1.5} />}
      {floor && <LimitLine plot={plot} at={y(floor.at)} words={floor.words} dashed />}
      {limit && <LimitLine plot={plot} at={y(limit.at)} words={limit.words} />}
      {drops
        .filter(({ day }) => day >= from && day <= to)
        .map(({ day, words: said }, i) => (
          <path
            key={i}
            d={`M${at(day)} ${plot.top - 7}c3 4 3.5 6 0 7c-3.5 -1 -3 -3 0 -7`}
            fill="var(--color-water-deep)"
            stroke="var(--color-edge)"
            strokeWidth={0.8}
          >
            <title>{said}</title>
          </path>
        ))}
      {bars
        .filter(({ day }) => day >= from && day <= to)
        .map(({ day, low, high }, i) => (
          <Bar
            key={i}
            x={at(day)}
            low={y(low)}
            high={high === null ? plot.top : y(high)}
            open={high === null}
          />
        ))}
      {today != null && today >= from && today <= to && (
        <>
          <path
            d={`M${at(today)} ${plot.top - 6}V${plot.height - plot.bottom}`}
            stroke="var(--color-ink)"
            strokeWidth={0.9}
          />
          <text x={at(today) + 3} y={plot.top - 1} fontSize={10} fill="var(--color-ink)">
            today
          </text>
        </>
      )}
    </Frame>
  );
}

function Bar({ x, low, high, open }: { x: number; low: number; high: number; open: boolean }): ReactNode {
  const top = Math.min(high, low - 2);
  return (
    <>
      <path d={`M${x} ${low}V${top}`} stroke="var(--color-ink)" strokeWidth={3} opacity={0.75} />
      <path d={`M${x - 3.5} ${low}h7`} stroke="var(--color-ink)" strokeWidth={1.2} />
      {!open && <path d={`M${x - 3.5} ${top}h7`} stroke="var(--color-ink)" strokeWidth={1.2} />}
    </>
  );
}

/** Six days or fewer to stand under a chart, at round distances. */
export function ticks(from: number, to: number): number[] {
  const steps = [1, 2, 5, 7, 14, 28, 56, 91, 182, 365, 730];
  const step = steps.find((days) => (to - from) / days <= 7) ?? 1460;
  const first = Math.ceil(from / step) * step;
  return Array.from({ length: Math.floor((to - first) / step) + 1 }, (_, i) => first + i * step);
}
