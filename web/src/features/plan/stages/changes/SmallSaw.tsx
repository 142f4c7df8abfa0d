import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { RegimeRow } from "@/api/client";

const WIDTH = 150;
const HEIGHT = 34;
const DAYS = 28;

interface SmallSawProps {
  row: RegimeRow;
  /** The top of the scale that all regimes share. */
  top: number;
  target: number;
  source: number;
}

/** Four settled weeks of one regime, on the scale of all of them: the limit as a line, the source as the floor. */
export function SmallSaw({ row, top, target, source }: SmallSawProps) {
  const x = scaleLinear([0, DAYS], [0, WIDTH]);
  const y = scaleLinear([0, top], [HEIGHT - 1, 1]).clamp(true);
  const path = line<RegimeRow["saw"][number]>(
    (corner) => x(corner.day),
    (corner) => y(corner.nitrate),
  );
  return (
    <svg aria-hidden="true" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="h-8 w-26">
      <path d={`M0 ${y(target)}H${WIDTH}`} stroke="var(--color-ink)" strokeWidth={0.8} />
      <path
        d={`M0 ${y(source)}H${WIDTH}`}
        stroke="var(--color-brass)"
        strokeWidth={0.8}
        strokeDasharray="4 3"
      />
      <path
        d={path(row.saw) ?? ""}
        fill="none"
        stroke={row.holds ? "var(--color-edge)" : "var(--color-short)"}
        strokeWidth={1.2}
      />
    </svg>
  );
}
