import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { Level, Season, StoreDay } from "@/api/client";
import { useUnits } from "@/ui/units";
import { useRoom, useRoomSheet } from "../context";

const WIDTH = 640;
const LEFT = 96;
const RIGHT = 18;
const STRIP = 15;
const LEVEL = 74;
const TOP = 8;
const GAP = 12;

/** The stores that a day draws from: the hot one where zones are mixed, and the reservoir where some are pumped. */
export function daysOf({ hot, reservoir }: Season): StoreDay[] {
  return reservoir ? [hot, reservoir] : [hot];
}

export function scheduleOf(season: Season) {
  return daysOf(season).flatMap(({ table }) => table.schedule);
}

/** A day of pulses, one strip a zone, with the level of each store that they draw from under them. */
export function DayChart({ season }: { season: Season }) {
  const zones = useRoomSheet((sheet) => sheet.zones) ?? [];
  const hotReserve = useRoom((room) => Number(room.store?.reserve_l ?? 0));
  const pumpedReserve = useRoom((room) => Number(room.reservoir?.reservoir_reserve_l ?? 0));
  const windows = useRoom((room) => room.windows ?? []);
  const units = useUnits();
  const x = scaleLinear([0, 24], [LEFT, WIDTH - RIGHT]);
  const base = TOP + zones.length * STRIP + 10;
  const stores = [
    { name: "hot", day: season.hot, reserve: hotReserve, from: "street" },
    ...(season.reservoir
      ? [{ name: "reservoir", day: season.reservoir, reserve: pumpedReserve, from: "reservoir" }]
      : []),
  ].filter(({ from }) => zones.some(({ fed_from }) => fed_from === from) || from === "reservoir");
  const says = stores
    .map(({ name, day }) => `the ${name} store falls to ${units.text(day.table.min_l ?? 0, "volume")}`)
    .join(", ");
  const schedule = scheduleOf(season);
  const words = daysOf(season).every(({ table }) => table.feasible)
    ? `A ${season.name} day: ${schedule.length} starts, the last ends at ${clock(Math.max(0, ...schedule.map(({ end_h }) => Number(end_h))))}; ${says}`
    : `In ${season.name} there is no such day`;
  const height = base + stores.length * (LEVEL + GAP) + 12;
  const foot = height - 22;
  return (
    <svg role="img" aria-label={words} viewBox={`0 0 ${WIDTH} ${height}`} className="w-full max-w-2xl">
      {windows.map((row, i) => (
        <rect
          key={i}
          x={x(Number(row.window_from_h))}
          y={TOP - 4}
          width={Math.max(0, x(Number(row.window_to_h)) - x(Number(row.window_from_h)))}
          height={zones.length * STRIP + 6}
          fill="var(--color-paper)"
        />
      ))}
      {[0, 3, 6, 9, 12, 15, 18, 21, 24].map((hour) => (
        <g key={hour}>
          <path d={`M${x(hour)} ${TOP}V${foot}`} stroke="var(--color-line)" strokeWidth={0.8} />
          <text
            x={x(hour)}
            y={height - 6}
            textAnchor="middle"
            fontSize={11}
            className="num"
            fill="var(--color-quiet)"
          >
            {String(hour).padStart(2, "0")}
          </text>
        </g>
      ))}
      {zones.map((zone, i) => (
        <g key={zone.number}>
          <text
            x={LEFT - 8}
            y={TOP + i * STRIP + 11}
            fontSize={11}
            textAnchor="end"
            fill="var(--color-quiet)"
          >
            {zone.name.length > 15 ? `zone ${zone.number}` : zone.name}
          </text>
          {schedule
            .filter((row) => row.zone === zone.number)
            .map((row, n) => (
              <rect
                key={n}
                x={x(Number(row.start_h))}
                y={TOP + i * STRIP + 2}
                width={Math.max(1.6, x(Number(row.end_h)) - x(Number(row.start_h)))}
                height={STRIP - 5}
                fill="var(--color-edge)"
              />
            ))}
        </g>
      ))}
      {stores.map(({ name, day, reserve }, i) => (
        <LevelLine
          key={name}
          name={name}
          levels={day.levels}
          reserve={reserve}
          top={base + i * (LEVEL + GAP)}
          x={x}
        />
      ))}
    </svg>
  );
}

/** What is in one store over the day, and what of it is never to be used. */
function LevelLine({
  name,
  levels,
  reserve,
  top,
  x,
}: {
  name: string;
  levels: Level[];
  reserve: number;
  top: number;
  x: (hour: number) => number;
}) {
  const units = useUnits();
  const most = Math.max(reserve, ...levels.map(({ litres }) => litres), 1);
  const y = scaleLinear([0, most * 1.05], [top + LEVEL, top]);
  const path = line<Level>(
    ({ at_h }) => x(at_h),
    ({ litres }) => y(litres),
  )(levels);
  return (
    <g>
      <path d={path ?? ""} fill="none" stroke="var(--color-brass)" strokeWidth={1.6} />
      <path d={`M${LEFT} ${y(reserve)}H${WIDTH - RIGHT}`} stroke="var(--color-ink)" strokeWidth={1} />
      <text x={WIDTH - RIGHT} y={y(reserve) - 3} fontSize={10.5} textAnchor="end" fill="var(--color-ink)">
        never under {units.text(reserve, "volume")}
      </text>
      <text x={LEFT - 8} y={y(most) + 4} fontSize={11} textAnchor="end" fill="var(--color-brass)">
        {name} {units.text(most, "volume")}
      </text>
    </g>
  );
}

export function clock(hours: number): string {
  const minutes = Math.round(hours * 60);
  return `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;
}
