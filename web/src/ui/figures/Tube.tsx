import { memo } from "react";
import type { Gauge, State } from "@/api/client";

const WORDS: Record<State, string> = {
  holds: "holds",
  tight: "tight",
  short: "short",
  measure: "to measure",
  unknown: "not known yet",
};

export const stateWord = (state: State): string => WORDS[state];

interface TubeProps {
  gauge?: Gauge | null;
  state: State;
  height: number;
}

/** Without a gauge the fill says no more than the state. */
const PLAIN: Record<State, Gauge> = {
  holds: { value: 0.45, top: 1, kind: "", low: null, high: 0.75 },
  tight: { value: 0.7, top: 1, kind: "", low: null, high: 0.75 },
  short: { value: 1, top: 1, kind: "", low: null, high: 0.75 },
  measure: { value: 0, top: 1, kind: "", low: null, high: 0.75 },
  unknown: { value: 0, top: 1, kind: "", low: null, high: 0.75 },
};

/** The sight glass itself: a tube filled to the value, a stroke across it at every limit. */
export const Tube = memo(function Tube({ gauge: given, state, height }: TubeProps) {
  const gauge = given ?? PLAIN[state];
  const width = height * 0.34;
  const stroke = height > 40 ? 2 : 1.4;
  const inner = height - 2 * stroke - 2;
  const share =
    gauge.top > 0 && state !== "unknown" && state !== "measure"
      ? Math.min(1, Math.max(0.02, gauge.value / gauge.top))
      : 0;
  const at = (value: number) => stroke + 1 + inner * (1 - Math.min(1, Math.max(0, value / (gauge.top || 1))));
  const marks = [gauge.low, gauge.high].filter((mark): mark is number => mark != null);
  const left = width * 0.5;
  const fill = state === "short" ? "var(--color-short-fill)" : "var(--color-water-deep)";
  const edge = state === "unknown" ? "var(--color-mark)" : "var(--color-edge)";
  const radius = width / 2 - stroke;
  const clip = `tube-${height}`;
  return (
    <svg
      width={width * 2}
      height={height}
      viewBox={`0 0 ${width * 2} ${height}`}
      aria-hidden="true"
      className="shrink-0"
    >
      <clipPath id={clip}>
        <rect
          x={left + stroke}
          y={stroke + 0.5}
          width={width - 2 * stroke}
          height={height - 2 * stroke - 1}
          rx={radius}
        />
      </clipPath>
      <rect
        x={left + stroke / 2}
        y={stroke / 2}
        width={width - stroke}
        height={height - stroke}
        rx={width / 2 - stroke / 2}
        fill="var(--color-paper)"
        stroke={edge}
        strokeWidth={stroke}
        strokeDasharray={state === "unknown" ? "3 3" : undefined}
      />
      {share > 0 && (
        <g clipPath={`url(#${clip})`}>
          <rect
            className="level"
            x={left}
            y={stroke + 1 + inner * (1 - share)}
            width={width}
            height={inner * share + stroke + 1}
            fill={fill}
          />
        </g>
      )}
      {marks.map((mark) => (
        <path
          key={mark}
          d={`M${left - width * 0.24} ${at(mark)}H${left + width * 1.24}`}
          stroke="var(--color-ink)"
          strokeWidth={stroke * 0.85}
          strokeDasharray={state === "measure" ? `${stroke} ${stroke}` : undefined}
        />
      ))}
    </svg>
  );
});
