import type { Section } from "@/api/client";
import { useUnits } from "../units";
import { Part, type Drawn } from "./Part";

type OverflowDrawn = NonNullable<Section["overflow"]>;
type SumpDrawn = NonNullable<Section["sump"]>;

interface OverflowProps extends Drawn {
  overflow: OverflowDrawn;
  sump: SumpDrawn;
  scale: number;
  labels: boolean;
}

/** The way out and back: weir box or holes, drains into the first chamber, the return from the last. */
export function Overflow({ section, overflow, sump, scale, labels, pick }: OverflowProps) {
  const units = useUnits();
  const { length_cm: length, height_cm: height, water_cm: water } = section;
  const pipe = scale * 0.009;
  const sumpLeft = (length - sump.length_cm) / 2;
  const weir = overflow.way === "weir";
  const boxX = length - Math.min(Math.max(overflow.box_cm * 0.45, 8), length * 0.14);
  const out = weir ? (boxX + length) / 2 : length + pipe * 1.6;
  const lip = overflow.crest_cm - Math.min(6, overflow.crest_cm * 0.2);
  const inlet = sumpLeft + Math.max(pipe * 2, (sump.chambers[0]?.length_cm ?? 10) * 0.4);
  const under = sump.below_cm * 0.22;
  const floor = sump.below_cm - (sump.chambers[0]?.level_cm ?? 10) * 0.6;
  const colour = overflow.drain_passes ? "var(--color-pipe)" : "var(--color-short)";
  const type = scale * 0.021;
  const text = { fontSize: type, className: "num", fill: "var(--color-quiet)" };
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
      <Return section={section} overflow={overflow} sump={sump} pipe={pipe} pick={pick} />
      <path
        d={`M${length * 0.24} ${-water + overflow.drop_cm}H${weir ? boxX : length}`}
        stroke="var(--color-brass)"
        strokeWidth={scale * 0.0018}
        strokeDasharray={`${scale * 0.008} ${scale * 0.005}`}
      />
      {labels && (
        <g>
          <path
            d={`M${(weir ? boxX : length) - 1} ${-overflow.crest_cm}L${length * 0.8} ${-height - type * 0.9}`}
            stroke="var(--color-mark)"
            strokeWidth={scale * 0.0012}
          />
          <text x={length * 0.8 - type * 0.4} y={-height - type * 0.7} textAnchor="end" {...text}>
            crest {units.text(overflow.crest_cm, "length")}
          </text>
          <text
            x={length * 0.24}
            y={-water + overflow.drop_cm + type * 1.25}
            fontSize={type}
            className="num"
            fill="var(--color-brass)"
          >
            power off −{units.text(overflow.drop_cm, "length")}
          </text>
        </g>
      )}
    </>
  );
}

function Pipe({ path, width, colour }: { path: string; width: number; colour: string }) {
  return (
    <>
      <path d={path} fill="none" stroke={colour} strokeWidth={width} strokeLinejoin="round" />
      <path
        d={path}
        fill="none"
        stroke="var(--color-water)"
        strokeWidth={width * 0.5}
        strokeLinejoin="round"
      />
    </>
  );
}

interface ReturnProps extends Drawn {
  overflow: OverflowDrawn;
  sump: SumpDrawn;
  pipe: number;
}

/** From the pump in the last chamber up outside the display, over its rim and under the water. */
function Return({ section, overflow, sump, pipe, pick }: ReturnProps) {
  const { length_cm: length, height_cm: height, water_cm: water } = section;
  const sumpLeft = (length - sump.length_cm) / 2;
  const from =
    sumpLeft + sump.length_cm - Math.max(pipe * 2.4, (sump.chambers.at(-1)?.length_cm ?? 12) * 0.5);
  const up = Math.max(length + pipe * 5.2, from);
  const depth = overflow.outlet_depths_cm[0] ?? 0;
  const wide = Math.min(12, (sump.chambers.at(-1)?.length_cm ?? 12) * 0.7);
  const high = Math.min(9, sump.intake_cm);
  const path = `M${from} ${sump.below_cm - high}V${sump.below_cm * 0.42}H${up}V${-height - pipe * 2.4}H${length * 0.9}V${-water + depth}`;
  return (
    <Part stage="flow" pick={pick} title="Return and pump">
      <Pipe path={path} width={pipe} colour="var(--color-pipe)" />
      <rect
        x={from - wide / 2}
        y={sump.below_cm - high}
        width={wide}
        height={high}
        rx={1}
        fill="var(--color-ink)"
      />
    </Part>
  );
}
