import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { Frame, LimitLine, type Plot } from "@/ui/charts/Frame";
import { useUnits } from "@/ui/units";
import { useRoom, useRoomSheet } from "../context";

const PLOT: Plot = { width: 560, height: 150, left: 44, right: 92, top: 22, bottom: 24 };

/** Pressure along a zone's header, from the manifold outwards. */
export function PressureChart({ zone }: { zone: number }) {
  const row = useRoomSheet(({ zones }) => zones.find(({ number }) => number === zone));
  const nominal = useRoom((room) => Number(room.zones?.[zone - 1]?.nominal_kpa ?? 0));
  const units = useUnits();
  if (!row || row.header_points.length < 2) return null;
  const points = row.header_points.map(
    ({ run, far_m, kpa }) => [units.shown(far_m, "head"), units.shown(kpa, "pressure"), run] as const,
  );
  const shelves = [...new Set(points.map(([, , run]) => run))].filter((run) => run > 0);
  const far = Math.max(...points.map(([m]) => m));
  const limit = units.shown(nominal, "pressure");
  const x = scaleLinear([0, Math.max(far, 1e-6)], [PLOT.left, PLOT.width - PLOT.right]);
  const y = scaleLinear(
    [0, Math.max(limit, ...points.map(([, kpa]) => kpa)) * 1.1],
    [PLOT.height - PLOT.bottom, PLOT.top],
  ).nice(3);
  const path = line<readonly [number, number, number]>(
    ([m]) => x(m),
    ([, kpa]) => y(kpa),
  );
  const words = `Pressure along the header of ${row.name}: ${units.text(row.header_points[0]!.kpa, "pressure")} at the manifold, ${units.text(row.header_points.at(-1)!.kpa, "pressure")} at the far end`;
  return (
    <Frame
      plot={PLOT}
      y={y}
      words={words}
      unit={units.unit("pressure").label}
      xTicks={x.ticks(5).map((tick) => [x(tick), `${tick} ${units.unit("head").label}`])}
    >
      <LimitLine plot={PLOT} at={y(limit)} words="rated at" dashed />
      {shelves.map((shelf) => (
        <path
          key={shelf}
          d={path([points[0]!, ...points.filter(([, , run]) => run === shelf)]) ?? ""}
          fill="none"
          stroke="var(--color-edge)"
          strokeWidth={1.6}
        />
      ))}
      {points.slice(1).map(([m, kpa], i) => (
        <circle key={i} cx={x(m)} cy={y(kpa)} r={2.6} fill="var(--color-edge)" />
      ))}
    </Frame>
  );
}
