import type { Section } from "@/api/client";
import { shore } from "@/lib/drawing/section";
import { useUnits } from "../units";
import { letters, Words } from "./Words";

export function Dimensions({ section, scale }: { section: Section; scale: number }) {
  const units = useUnits();
  const { length_cm: length, height_cm: height, water_cm: water } = section;
  // Where a dry place stands, its own words are at the left.
  const clear = section.land ? Math.max(length * 0.42, shore(section) * 1.12 + length * 0.02) : length * 0.02;
  const tick = scale * 0.008;
  const type = letters(scale);
  const off = scale * 0.035;
  const text = { fontSize: type, className: "num", fill: "var(--color-quiet)" };
  return (
    <g stroke="var(--color-mark)" strokeWidth={scale * 0.0014} fill="none">
      <path d={`M0 ${off}H${length}M0 ${off - tick}V${off + tick}M${length} ${off - tick}V${off + tick}`} />
      <path
        d={`M${-off} 0V${-height}M${-off - tick} 0H${-off + tick}M${-off - tick} ${-height}H${-off + tick}`}
      />
      <g stroke="none">
        <Label
          x={length / 2}
          y={off}
          words={
            units.text(length, "length") +
            (section.tank_count > 1 ? ` · one of ${section.tank_count} alike` : "")
          }
          {...text}
        />
        <Label x={-off} y={-height / 2} words={units.text(height, "length")} turned {...text} />
        <Words x={clear} y={-water + type * 1.25} size={type} ground="water">
          water {units.text(water, "length")}
        </Words>
      </g>
    </g>
  );
}

interface LabelProps {
  x: number;
  y: number;
  words: string;
  fontSize: number;
  className: string;
  fill: string;
  turned?: boolean;
}

/** A dimension's figure on its line, with the ground behind it cleared. */
export function Label({ x, y, words, turned, fontSize, ...rest }: LabelProps) {
  const half = (words.length * fontSize * 0.62) / 2;
  return (
    <g transform={`translate(${x} ${y})${turned ? " rotate(-90)" : ""}`}>
      <rect
        x={-half}
        y={-fontSize * 0.7}
        width={half * 2}
        height={fontSize * 1.4}
        fill="var(--color-ground)"
      />
      <text textAnchor="middle" dominantBaseline="central" fontSize={fontSize} {...rest}>
        {words}
      </text>
    </g>
  );
}
