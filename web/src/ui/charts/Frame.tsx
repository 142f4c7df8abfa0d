import type { ScaleLinear } from "d3-scale";
import type { ReactNode } from "react";

export interface Plot {
  width: number;
  height: number;
  left: number;
  right: number;
  top: number;
  bottom: number;
}

interface FrameProps {
  plot: Plot;
  y: ScaleLinear<number, number>;
  words: string;
  unit: string;
  xTicks: [number, string][];
  children: ReactNode;
}

/** Every chart's ground: hairlines, figures in the numbers' face, words for those who do not see it. */
export function Frame({ plot, y, words, unit, xTicks, children }: FrameProps) {
  const right = plot.width - plot.right;
  return (
    <svg
      role="img"
      aria-label={words}
      viewBox={`0 0 ${plot.width} ${plot.height}`}
      className="w-full max-w-2xl"
    >
      {y.ticks(4).map((tick) => (
        <g key={tick}>
          <path d={`M${plot.left} ${y(tick)}H${right}`} stroke="var(--color-line)" strokeWidth={0.8} />
          <text
            x={plot.left - 6}
            y={y(tick) + 4}
            textAnchor="end"
            fontSize={11}
            className="num"
            fill="var(--color-quiet)"
          >
            {tick}
          </text>
        </g>
      ))}
      <text x={4} y={12} fontSize={11} fill="var(--color-quiet)">
        {unit}
      </text>
      {xTicks.map(([x, label]) => (
        <text
          key={label}
          x={x}
          y={plot.height - 8}
          textAnchor="middle"
          fontSize={11}
          className="num"
          fill="var(--color-quiet)"
        >
          {label}
        </text>
      ))}
      {children}
    </svg>
  );
}

interface LimitProps {
  plot: Plot;
  at: number;
  words: string;
  dashed?: boolean;
}

/** A limit as a marked line with its name at the right. */
export function LimitLine({ plot, at, words, dashed }: LimitProps) {
  const right = plot.width - plot.right;
  return (
    <>
      <path
        d={`M${plot.left} ${at}H${right}`}
        stroke={dashed ? "var(--color-brass)" : "var(--color-ink)"}
        strokeWidth={1.2}
        strokeDasharray={dashed ? "5 4" : undefined}
      />
      <text x={right + 6} y={at + 4} fontSize={11} fill={dashed ? "var(--color-brass)" : "var(--color-ink)"}>
        {words}
      </text>
    </>
  );
}

/** What lies between two levels, as a pale band over the whole width. */
export function Band({ plot, low, high }: { plot: Plot; low: number; high: number }) {
  return (
    <rect
      x={plot.left}
      y={high}
      width={plot.width - plot.right - plot.left}
      height={Math.max(1, low - high)}
      fill="var(--color-water)"
      opacity={0.6}
    />
  );
}

/** A word at the right edge, in the colour of what it names. */
export function EdgeLabel({
  plot,
  at,
  words,
  colour,
}: {
  plot: Plot;
  at: number;
  words: string;
  colour: string;
}) {
  return (
    <text x={plot.width - plot.right + 6} y={at} fontSize={11} fill={colour}>
      {words}
    </text>
  );
}

/** The ink of what holds, and of what does not. */
export const inkOf = (harms: boolean): string => (harms ? "var(--color-short)" : "var(--color-ink)");
