import type { Section } from "@/api/client";
import { alongLine, sumpLeft } from "@/lib/drawing/section";
import { Fitting, Valve } from "./Fittings";
import { Pipe } from "./Lines";
import { Part, type Drawn } from "./Part";

type OverflowDrawn = NonNullable<Section["overflow"]>;
type SumpDrawn = NonNullable<Section["sump"]>;

interface ReturnProps extends Drawn {
  overflow: OverflowDrawn;
  sump: SumpDrawn;
  pipe: number;
  /** Where the open water ends on the right. */
  right: number;
}

/** From the pump in the last chamber up outside the display, over its rim and down every return into the water. */
export function Return({ section, overflow, sump, pipe, right, pick }: ReturnProps) {
  const { length_cm: length, height_cm: height, water_cm: water } = section;
  const left = sumpLeft(section, sump);
  const from = left + sump.length_cm - Math.max(pipe * 2.4, (sump.chambers.at(-1)?.length_cm ?? 12) * 0.5);
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
