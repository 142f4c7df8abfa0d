import type { Section } from "@/api/client";
import { useUnits } from "../units";
import { alongLine } from "@/lib/section";
import { Fitting, Valve } from "./Fittings";
import { Part, type Drawn } from "./Part";
import { Words } from "./Words";

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
  const powerOff = `power off −${units.text(overflow.drop_cm, "length")}`;
  const blocked = `drain blocked +${units.text(overflow.blocked_cm, "length")}`;
  const room = (weir ? boxX : length) - length * 0.24;
  const oneLine = (powerOff.length + blocked.length + 2) * 0.6 * type < room;
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
          <Words
            y={Math.max(-water + overflow.drop_cm, -water + type * 1.25) + type * 1.25}
            size={type}
            ground="water"
            fill="var(--color-brass)"
          >
            <tspan x={length * 0.24}>{powerOff}</tspan>
            <tspan {...(oneLine ? { dx: type } : { x: length * 0.24, dy: type * 1.25 })}>{blocked}</tspan>
          </Words>
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

interface LevelProps {
  y: number;
  from: number;
  to: number;
  scale: number;
  colour?: string;
  dotted?: boolean;
}

/** A level that the water comes to when something fails: dashed with the power off, dotted when something clogs too. */
export function Level({ y, from, to, scale, colour = "var(--color-brass)", dotted = false }: LevelProps) {
  return (
    <path
      d={`M${from} ${y}H${to}`}
      stroke={colour}
      strokeWidth={scale * 0.0018}
      strokeDasharray={dotted ? `${scale * 0.0018} ${scale * 0.005}` : `${scale * 0.008} ${scale * 0.005}`}
    />
  );
}

interface ReturnProps extends Drawn {
  overflow: OverflowDrawn;
  sump: SumpDrawn;
  pipe: number;
  /** Where the open water ends on the right. */
  right: number;
}

/** From the pump in the last chamber up outside the display, over its rim and down every return into the water. */
function Return({ section, overflow, sump, pipe, right, pick }: ReturnProps) {
  const { length_cm: length, height_cm: height, water_cm: water } = section;
  const sumpLeft = (length - sump.length_cm) / 2;
  const from =
    sumpLeft + sump.length_cm - Math.max(pipe * 2.4, (sump.chambers.at(-1)?.length_cm ?? 12) * 0.5);
  const up = Math.max(length + pipe * 5.2, from);
  const wide = Math.min(12, (sump.chambers.at(-1)?.length_cm ?? 12) * 0.7);
  const high = Math.min(9, sump.intake_cm);
  const rim = -height - pipe * 2.4;
  const apart = Math.min(pipe * 6, (length * 0.5) / Math.max(1, overflow.outlets.length));
  const drops = overflow.outlets.map((_, i) => right - pipe * 2.5 - i * apart);
  const riser: [number, number][] = [
    [from, sump.below_cm - high],
    [from, sump.below_cm * 0.42],
    [up, sump.below_cm * 0.42],
    [up, rim],
  ];
  const colour = overflow.reaches ? "var(--color-pipe)" : "var(--color-short)";
  const line = riser.map(([x, y]) => `${x} ${y}`).join("L");
  const parts = overflow.run.filter(({ part }) => part !== "pipe");
  return (
    <>
      <Part stage="flow" pick={pick} title="Return and pump">
        <Pipe path={`M${line}H${drops.at(-1) ?? right}`} width={pipe} colour={colour} />
        {overflow.outlets.map((outlet, i) => (
          <Pipe
            key={i}
            path={`M${drops[i]} ${rim}V${-water + outlet.depth_cm}`}
            width={pipe * 0.85}
            colour={outlet.flow_lph > 0 ? colour : "var(--color-short)"}
          />
        ))}
        <rect
          x={from - wide / 2}
          y={sump.below_cm - high}
          width={wide}
          height={high}
          rx={1}
          fill={overflow.reaches ? "var(--color-ink)" : "var(--color-short)"}
        />
      </Part>
      {parts.map((part, i) => (
        <Fitting
          key={i}
          {...part}
          size={pipe}
          {...alongLine(riser, (i + 1) / (parts.length + 1), pipe * 2)}
        />
      ))}
      {overflow.outlets.map((outlet, i) => (
        <Valve key={i} open={outlet.open_frac} size={pipe} x={drops[i]! + apart * 0.4} y={rim} />
      ))}
    </>
  );
}
