import { useUnits } from "../units";
import { Words } from "./Words";

interface FittingProps {
  part: string;
  label: string;
  count: number;
  size: number;
  x: number;
  y: number;
  /** Which way the pipe runs here, in degrees from the right. */
  turn: number;
}

/** A part on the return's run: its sign across the pipe, and how often it comes when more than once. */
export function Fitting({ part, label, count, size, x, y, turn }: FittingProps) {
  const upright = Math.abs(turn) === 90;
  return (
    <g>
      <title>{count > 1 ? `${count} × ${label}` : label}</title>
      <g
        transform={`translate(${x} ${y}) rotate(${turn}) scale(${size})`}
        fill="var(--color-paper)"
        stroke="var(--color-ink)"
        strokeWidth={0.22}
        strokeLinejoin="round"
      >
        {SIGNS[part] ?? SIGNS.union}
      </g>
      {count > 1 && (
        <Words
          x={x + (upright ? size * 1.4 : 0)}
          y={y + (upright ? size * 0.6 : -size * 1.4)}
          textAnchor={upright ? "start" : "middle"}
          size={size * 1.7}
        >
          ×{count}
        </Words>
      )}
    </g>
  );
}

const BODY = "M-1.1 -0.8L1.1 0.8V-0.8L-1.1 0.8Z";

/** Drawn one pipe's width high, the pipe running to the right. */
const SIGNS: Record<string, React.ReactNode> = {
  elbow_90: <path d="M-0.9 0.9A1.8 1.8 0 0 0 0.9 -0.9" fill="none" strokeWidth={0.4} />,
  elbow_45: <path d="M-0.9 0.4L0.2 0.4L0.9 -0.4" fill="none" strokeWidth={0.4} />,
  tee_run: <path d="M0 0V-1.5M-0.7 -1.5H0.7" fill="none" strokeWidth={0.4} />,
  tee_branch: <path d="M0 0V-1.5M-0.7 -1.5H0.7M-0.8 0H0.8" fill="none" strokeWidth={0.4} />,
  ball_valve: (
    <>
      <path d={BODY} />
      <circle r={0.5} />
    </>
  ),
  gate_valve: (
    <>
      <path d={BODY} />
      <path d="M0 0V-1.5M-0.6 -1.5H0.6" fill="none" />
    </>
  ),
  swing_check: <path d="M-0.9 -0.8L0.9 0L-0.9 0.8ZM0.9 -0.9V0.9" />,
  spring_check: (
    <>
      <path d="M-0.9 -0.8L0.9 0L-0.9 0.8ZM0.9 -0.9V0.9" />
      <path d="M-1.6 0L-1.4 0.4L-1.2 -0.4L-0.9 0" fill="none" />
    </>
  ),
  union: <path d="M-0.35 -1V1M0.35 -1V1" fill="none" strokeWidth={0.4} />,
  bulkhead: <path d="M-0.45 -1.2H0.45V1.2H-0.45Z" />,
  entry: <path d="M-0.8 -1L0 -0.5V0.5L-0.8 1" fill="none" strokeWidth={0.4} />,
  exit: <path d="M0.8 -1L0 -0.5V0.5L0.8 1" fill="none" strokeWidth={0.4} />,
};

/** The valve before a return, as far filled as it is closed. */
export function Valve({ open, size, x, y }: { open: number; size: number; x: number; y: number }) {
  const units = useUnits();
  return (
    <g transform={`translate(${x} ${y}) scale(${size})`} stroke="var(--color-ink)" strokeWidth={0.22}>
      <title>{`Valve, ${units.text(open, "share")} open`}</title>
      <path d={BODY} fill="var(--color-paper)" strokeLinejoin="round" />
      <path d={BODY} fill="var(--color-ink)" fillOpacity={1 - open} strokeLinejoin="round" />
    </g>
  );
}
