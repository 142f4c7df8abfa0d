import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { Level, Season } from "@/api/client";
import { useUnits } from "@/ui/units";
import { useRoom, useRoomSheet } from "../context";

const WIDTH = 640;
const LEFT = 96;
const RIGHT = 18;
const STRIP = 15;
const LEVEL = 74;
const TOP = 8;

/** A day of pulses, one strip a zone, with the hot store's level under them. */
export function DayChart({ season }: { season: Season }) {
  const zones = useRoomSheet((sheet) => sheet.zones) ?? [];
  const reserve = useRoom((room) => Number(room.store?.reserve_l ?? 0));
  const windows = useRoom((room) => room.windows ?? []);
  const units = useUnits();
  const x = scaleLinear([0, 24], [LEFT, WIDTH - RIGHT]);
  const base = TOP + zones.length * STRIP + 10;
  const most = Math.max(reserve, ...season.levels.map(({ litres }) => litres), 1);
  const y = scaleLinear([0, most * 1.05], [base + LEVEL, base]);
  const path = line<Level>(
    ({ at_h }) => x(at_h),
    ({ litres }) => y(litres),
  )(season.levels);
  const { table } = season;
  const words = table.feasible
    ? `A ${season.name} day: ${table.starts} starts, the last ends at ${clock(table.finish_h ?? 0)}; the hot store falls to ${units.text(table.min_l ?? 0, "volume")}`
    : `In ${season.name} there is no such day`;
  const height = base + LEVEL + 22;
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
          <path d={`M${x(hour)} ${TOP}V${base + LEVEL}`} stroke="var(--color-line)" strokeWidth={0.8} />
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
          {table.schedule
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
      <path d={path ?? ""} fill="none" stroke="var(--color-brass)" strokeWidth={1.6} />
      <path d={`M${LEFT} ${y(reserve)}H${WIDTH - RIGHT}`} stroke="var(--color-ink)" strokeWidth={1} />
      <text x={WIDTH - RIGHT} y={y(reserve) - 3} fontSize={10.5} textAnchor="end" fill="var(--color-ink)">
        never under {units.text(reserve, "volume")}
      </text>
      <text x={LEFT - 8} y={y(most) + 4} fontSize={11} textAnchor="end" fill="var(--color-brass)">
        hot {units.text(most, "volume")}
      </text>
    </svg>
  );
}

export function clock(hours: number): string {
  const minutes = Math.round(hours * 60);
  return `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;
}
