import { useState } from "react";
import type { Section } from "@/api/client";
import { chamberStarts } from "@/lib/drawing/section";
import { useUnits } from "../units";
import { Baffle } from "./Baffle";
import { Level } from "./Lines";
import { Part } from "./Part";
import { letters, Words } from "./Words";

type SumpDrawn = NonNullable<Section["sump"]>;

interface SumpProps {
  sump: SumpDrawn;
  /** What its pump moves, in L/h. */
  pumped: number;
  left: number;
  heated: boolean;
  scale: number;
  labels: boolean;
  pick?: (stage: string) => void;
  setBaffle?: (chamber: number, cm: number) => void;
}

/** The sump with its chambers at their running levels, and the level with the power off as a ghost line. */
export function Sump({ sump, pumped, left, heated, scale, labels, pick, setBaffle }: SumpProps) {
  const units = useUnits();
  const [held, setHeld] = useState<{ chamber: number; cm: number } | null>(null);
  const pane = Math.max(sump.pane_cm, sump.length_cm * 0.006);
  const type = letters(scale);
  const starts = chamberStarts(sump);
  const ghost = sump.fits ? "var(--color-brass)" : "var(--color-short)";
  const cloggedGhost = sump.clogged_off_cm > sump.height_cm ? "var(--color-short)" : ghost;
  const offText = units.text(sump.power_off_cm, "length");
  const cloggedText = units.text(sump.clogged_off_cm, "length");
  const off = Math.min(sump.power_off_cm, sump.height_cm * 1.08);
  const clogged = Math.min(sump.clogged_off_cm, sump.height_cm * 1.14);
  return (
    <g transform={`translate(${left} ${sump.below_cm})`}>
      {sump.chambers.map((chamber, i) => (
        <Part key={i} stage="flow" pick={pick} title={`Chamber ${i + 1}: ${chamber.kind}`}>
          <rect
            className="level"
            x={starts[i]}
            y={-chamber.level_cm}
            width={chamber.length_cm}
            height={chamber.level_cm}
            fill="var(--color-water)"
          />
          {chamber.kind === "media" && (
            <Mesh x={starts[i]!} width={chamber.length_cm} level={chamber.level_cm} />
          )}
          {chamber.kind === "heater" && heated && (
            <rect
              x={starts[i]! + chamber.length_cm * 0.42}
              y={-chamber.level_cm * 0.82}
              width={scale * 0.009}
              height={chamber.level_cm * 0.6}
              rx={scale * 0.004}
              fill="var(--color-brass)"
            />
          )}
        </Part>
      ))}
      {sump.chambers.slice(0, -1).map((chamber, i) => (
        <Baffle
          key={i}
          chamber={i}
          x={starts[i]! + chamber.length_cm}
          cm={held?.chamber === i ? held.cm : chamber.baffle_cm}
          most={sump.height_cm - 1}
          scale={scale}
          hold={setHeld}
          set={setBaffle}
        />
      ))}
      <path
        d={`M${-pane / 2} ${-sump.height_cm}V${pane / 2}H${sump.length_cm + pane / 2}V${-sump.height_cm}`}
        fill="none"
        stroke={sump.fits ? "var(--color-edge)" : "var(--color-short)"}
        strokeWidth={pane}
      />
      <Level y={-off} from={-scale * 0.01} to={sump.length_cm + scale * 0.01} scale={scale} colour={ghost} />
      {clogged > off && (
        <Level
          y={-clogged}
          from={-scale * 0.01}
          to={sump.length_cm + scale * 0.01}
          scale={scale}
          colour={cloggedGhost}
          dotted
        />
      )}
      {labels && (
        <>
          <Words x={sump.length_cm + scale * 0.016} y={-off + type * 0.3} size={type} fill={ghost}>
            {offText}
          </Words>
          {cloggedText !== offText && (
            <Words
              x={sump.length_cm + scale * 0.016}
              y={-Math.max(clogged, off + type * 1.1) + type * 0.3}
              size={type}
              fill={cloggedGhost}
            >
              {cloggedText} clogged
            </Words>
          )}
          <Words x={sump.length_cm / 2} y={pane + type * 1.5} textAnchor="middle" size={type}>
            {units.text(sump.length_cm, "length")}
            {sump.media_l > 0 && ` · media ${units.text(sump.media_l, "volume")}`}
            {` · pump ${units.text(pumped, "flow")}`}
          </Words>
        </>
      )}
    </g>
  );
}

function Mesh({ x, width, level }: { x: number; width: number; level: number }) {
  const high = level * 0.7;
  const steps = 6;
  const lines = Array.from({ length: steps - 1 }, (_, i) => (i + 1) / steps);
  return (
    <g stroke="var(--color-edge)" strokeWidth={0.25} opacity={0.55} fill="none">
      <rect x={x + 1.5} y={-high - 2} width={Math.max(0, width - 3)} height={high} />
      {lines.map((at) => (
        <path
          key={at}
          d={`M${x + 1.5 + (width - 3) * at} ${-high - 2}V-2M${x + 1.5} ${-2 - high * at}H${x + width - 1.5}`}
        />
      ))}
    </g>
  );
}
