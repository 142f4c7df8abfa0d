import { memo } from "react";
import type { Section } from "@/api/client";
import type { FaultPlace } from "@/lib/document/faultPlaces";
import { described, overRim, sumpLeft } from "@/lib/drawing/section";
import { useUnits } from "../units";
import { Animals, Bed, Hardscape, Plants } from "./Contents";
import { Dimensions } from "./Dimensions";
import { Hardware } from "./Hardware";
import { Land } from "./Land";
import { Overflow } from "./Overflow";
import { Part } from "./Part";
import { Sump } from "./Sump";
import { letters } from "./Words";

/** About as many as the words of what happens when power or drain fail. */
const FAILURE_LETTERS = 38;

interface DrawingProps {
  section: Section;
  /** Dimensions are drawn on the large one only. */
  dimensions?: boolean;
  /** Opens the stage that a part belongs to. */
  pick?: (stage: string) => void;
  /** Sets a baffle of the sump, in cm above its base. */
  setBaffle?: (chamber: number, cm: number) => void;
  /** What can not be built, each at its place; the rest of the drawing is then the last that could. */
  wrong?: FaultPlace[];
  className?: string;
}

/** The true-to-scale side cut: one unit is one centimetre, the inside's lower left corner is the origin. */
export const SectionDrawing = memo(function SectionDrawing({
  section,
  dimensions = false,
  pick,
  setBaffle,
  wrong,
  className,
}: DrawingProps) {
  const units = useUnits();
  const { length_cm: length, height_cm: height, water_cm: water, sump } = section;
  const pane = Math.max(section.pane_cm, length * 0.006);
  const below = sump ? sump.below_cm + sump.pane_cm : 0;
  const room = dimensions ? Math.max(length, height + below) * 0.105 : pane * 2;
  const scale = Math.max(length + 2 * room, (height + below + 2 * room) * 1.35);
  const type = letters(scale);
  const crowded = sump !== null && length * 0.62 < FAILURE_LETTERS * 0.5 * type;
  const above = Math.max(dimensions && crowded ? type * 3 : 0, overRim(section));
  const words = described(section, (value, kind) => units.text(value, kind));
  return (
    <svg
      role={pick ? "group" : "img"}
      aria-label={words}
      className={className}
      viewBox={`${-room} ${-height - room - above} ${length + 2 * room} ${height + below + above + room * (dimensions ? 1.9 : 2)}`}
      preserveAspectRatio={dimensions ? "xMidYMid meet" : "xMinYMid meet"}
    >
      <g opacity={wrong ? 0.5 : undefined}>
        <Part stage="changes" pick={pick} title="Water">
          <rect className="level" x={0} y={-water} width={length} height={water} fill="var(--color-water)" />
          <path d={`M0 ${-water}H${length}`} stroke="var(--color-edge)" strokeWidth={scale * 0.0022} />
        </Part>
        <Bed section={section} pick={pick} />
        <Hardscape section={section} pick={pick} />
        <Plants section={section} />
        <Land section={section} pick={pick} scale={scale} type={dimensions ? type : 0} />
        <Animals section={section} pick={pick} />
        <Hardware section={section} pick={pick} scale={scale} />
        <Part stage="tank" pick={pick} title="Glass">
          <path
            d={`M${-pane / 2} ${-height}V${pane / 2}H${length + pane / 2}V${-height}`}
            fill="none"
            stroke="var(--color-edge)"
            strokeWidth={pane}
          />
        </Part>
        {sump && (
          <Sump
            sump={sump}
            pumped={section.overflow?.return_lph ?? 0}
            left={sumpLeft(section, sump)}
            heated={section.heated && section.heaters_in === "sump"}
            scale={scale}
            labels={dimensions}
            pick={pick}
            setBaffle={setBaffle}
          />
        )}
        {sump && section.overflow && (
          <Overflow
            section={section}
            overflow={section.overflow}
            sump={sump}
            scale={scale}
            labels={dimensions}
            crowded={crowded}
            pick={pick}
          />
        )}
        {dimensions && <Dimensions section={section} scale={scale} />}
      </g>
      {wrong?.map((place) => (
        <Wrong key={place.path} {...place} size={scale * 0.014} />
      ))}
    </svg>
  );
});

/** A mark on what can not be built. */
function Wrong({ path, x, y, size }: FaultPlace & { size: number }) {
  return (
    <g data-wrong={path} transform={`translate(${x} ${y})`}>
      <circle r={size} fill="var(--color-paper)" stroke="var(--color-short)" strokeWidth={size * 0.25} />
      <path
        d={`M0 ${-size * 0.5}V${size * 0.1}M0 ${size * 0.42}V${size * 0.5}`}
        stroke="var(--color-short)"
        strokeWidth={size * 0.25}
        strokeLinecap="round"
      />
    </g>
  );
}
