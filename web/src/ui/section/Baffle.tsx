import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import { clamp } from "@/lib/drawing/section";
import { useUnits } from "../units";

const GRAIN_CM = 0.5;
/** While a baffle is dragged the drawing follows at once, the figures this often. */
const FIGURES_MS = 100;

interface BaffleProps {
  chamber: number;
  x: number;
  cm: number;
  most: number;
  scale: number;
  hold: (held: { chamber: number; cm: number } | null) => void;
  set?: (chamber: number, cm: number) => void;
}

/** A baffle: drawn, and where it may be set, dragged or moved with the arrow keys. */
export function Baffle({ chamber, x, cm, most, scale, hold, set }: BaffleProps) {
  const units = useUnits();
  const dragging = useRef(false);
  const owed = useRef<number | null>(null);
  const told = useRef(0);
  const line = <path d={`M${x} 0V${-cm}`} stroke="var(--color-ink)" strokeWidth={scale * 0.0045} />;
  if (!set) return line;
  const to = (value: number, at: number) => {
    const grained = clamp(Math.round(value / GRAIN_CM) * GRAIN_CM, 1, most);
    hold({ chamber, cm: grained });
    if (grained === cm) return;
    owed.current = grained;
    if (!dragging.current || at - told.current >= FIGURES_MS) settle(at);
  };
  const settle = (at: number) => {
    if (owed.current !== null) set(chamber, owed.current);
    owed.current = null;
    told.current = at;
  };
  const drag = (event: PointerEvent<SVGGElement>) => {
    const matrix = dragging.current ? event.currentTarget.getScreenCTM() : null;
    if (matrix)
      to(-new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse()).y, event.timeStamp);
  };
  const press = (event: KeyboardEvent) => {
    const step = { ArrowUp: GRAIN_CM, ArrowDown: -GRAIN_CM, PageUp: 5, PageDown: -5 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    to(cm + step, event.timeStamp);
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`Baffle after chamber ${chamber + 1}`}
      aria-orientation="vertical"
      aria-valuemin={1}
      aria-valuemax={most}
      aria-valuenow={cm}
      aria-valuetext={units.text(cm, "length")}
      className="cursor-ns-resize touch-none"
      onKeyDown={press}
      onBlur={() => hold(null)}
      onPointerDown={(event) => {
        dragging.current = true;
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={drag}
      onPointerUp={(event) => {
        dragging.current = false;
        settle(event.timeStamp);
        hold(null);
      }}
    >
      <rect x={x - scale * 0.022} y={-most} width={scale * 0.044} height={most} fill="transparent" />
      {line}
      <circle cx={x} cy={-cm} r={scale * 0.006} fill="var(--color-ink)" />
    </g>
  );
}
