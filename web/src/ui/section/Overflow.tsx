import type { Section } from "@/api/client";
import { sumpLeft } from "@/lib/drawing/section";
import { useUnits } from "../units";
import { Level, Pipe } from "./Lines";
import { Part, type Drawn } from "./Part";
import { Return } from "./Return";
import { letters, Words } from "./Words";

type OverflowDrawn = NonNullable<Section["overflow"]>;
type SumpDrawn = NonNullable<Section["sump"]>;

interface OverflowProps extends Drawn {
  overflow: OverflowDrawn;
  sump: SumpDrawn;
  scale: number;
  labels: boolean;
  /** The tank is too short for words in its water: they stand above it. */
  crowded: boolean;
}

/** The way out and back: weir box or holes, drains into the first chamber, the return from the last. */
export function Overflow({ section, overflow, sump, scale, labels, crowded, pick }: OverflowProps) {
  const units = useUnits();
  const { length_cm: length, height_cm: height, water_cm: water } = section;
  const pipe = scale * 0.009;
  const left = sumpLeft(section, sump);
  const weir = overflow.way === "weir";
  const boxX = length - Math.min(Math.max(overflow.box_cm * 0.45, 8), length * 0.14);
  const out = weir ? (boxX + length) / 2 : length + pipe * 1.6;
  const lip = overflow.crest_cm - Math.min(6, overflow.crest_cm * 0.2);
  const inlet = left + Math.max(pipe * 2, (sump.chambers[0]?.length_cm ?? 10) * 0.4);
  const under = sump.below_cm * 0.22;
  const floor = sump.below_cm - (sump.chambers[0]?.level_cm ?? 10) * 0.6;
  const colour = overflow.drain_passes ? "var(--color-pipe)" : "var(--color-short)";
  const type = letters(scale);
  const powerOff = `power off −${units.text(overflow.drop_cm, "length")}`;
  const blocked = `drain blocked +${units.text(overflow.blocked_cm, "length")}`;
  const drain = weir
    ? `M${out} ${-lip}V${under}H${inlet}V${floor}`
    : `M${length} ${-overflow.crest_cm}H${out}V${under}H${inlet}V${floor}`;
  return (
    <>
      {weir && (
        <g>
          <rect
            x={boxX}
            y={-lip - 2}
            width={length - boxX}
            height={lip + 2}
            fill="var(--color-water-deep)"
            opacity={0.7}
          />
          <path d={`M${boxX} 0V${-overflow.crest_cm}`} stroke="var(--color-ink)" strokeWidth={pipe * 0.55} />
        </g>
      )}
      <Part stage="flow" pick={pick} title="Overflow and drain">
        {!weir && (
          <path
            d={`M${length - pipe * 0.8} ${-overflow.crest_cm - overflow.hole_cm}V${-overflow.crest_cm}`}
            stroke="var(--color-ink)"
            strokeWidth={pipe * 0.8}
          />
        )}
        <Pipe path={drain} width={pipe} colour={colour} />
        {overflow.emergency && (
          <Pipe
            path={
              weir
                ? `M${out - pipe * 2.4} ${-lip - 4}V${under + pipe * 2.2}H${inlet - pipe * 2.4}V${floor - pipe * 4}`
                : `M${length} ${-overflow.crest_cm - overflow.hole_cm * 1.6}H${out + pipe * 2.4}V${under + pipe * 2.2}H${inlet - pipe * 2.4}V${floor - pipe * 4}`
            }
            width={pipe * 0.85}
            colour="var(--color-pipe)"
          />
        )}
      </Part>
      <Return
        section={section}
        overflow={overflow}
        sump={sump}
        pipe={pipe}
        right={weir ? boxX : length}
        pick={pick}
      />
      <Level y={-water + overflow.drop_cm} from={length * 0.24} to={weir ? boxX : length} scale={scale} />
      <Level
        y={-water - overflow.blocked_cm}
        from={length * 0.24}
        to={weir ? boxX : length}
        scale={scale}
        dotted
      />
      {labels && (
        <g>
          <path
            d={`M${(weir ? boxX : length) - 1} ${-overflow.crest_cm}L${length * 0.72} ${-height - type * 0.9}`}
            stroke="var(--color-mark)"
            strokeWidth={scale * 0.0012}
          />
          <Words x={length * 0.72 - type * 0.4} y={-height - type * 0.7} textAnchor="end" size={type}>
            crest {units.text(overflow.crest_cm, "length")}
          </Words>
          {crowded ? (
            <Words y={-height - type * 3.4} size={type} fill="var(--color-brass)">
              <tspan x={0}>{powerOff}</tspan>
              <tspan x={0} dy={type * 1.25}>
                {blocked}
              </tspan>
            </Words>
          ) : (
            <Words
              x={length * 0.24}
              y={Math.max(-water + overflow.drop_cm, -water + type * 1.25) + type * 1.25}
              size={type}
              ground="water"
              fill="var(--color-brass)"
            >
              {powerOff} <tspan dx={type}>{blocked}</tspan>
            </Words>
          )}
        </g>
      )}
    </>
  );
}
