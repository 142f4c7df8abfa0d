import { memo } from "react";
import type { Section } from "@/api/client";
import { described, placed, stems, stones } from "@/lib/section";
import { silhouette } from "@/lib/silhouettes";
import { useUnits } from "./units";

interface DrawingProps {
  section: Section;
  /** Dimensions are drawn on the large one only. */
  dimensions?: boolean;
  /** Opens the stage that a part belongs to. */
  pick?: (stage: string) => void;
  className?: string;
}

/** The true-to-scale side cut: one unit is one centimetre, the inside's lower left corner is the origin. */
export const SectionDrawing = memo(function SectionDrawing({
  section,
  dimensions = false,
  pick,
  className,
}: DrawingProps) {
  const units = useUnits();
  const { length_cm: length, height_cm: height, water_cm: water } = section;
  const pane = Math.max(section.pane_cm, length * 0.006);
  const room = dimensions ? Math.max(length, height) * 0.105 : pane * 2;
  const scale = Math.max(length + 2 * room, (height + 2 * room) * 1.35);
  const words = described(section, (value, kind) => units.text(value, kind));
  return (
    <svg
      role="img"
      aria-label={words}
      className={className}
      viewBox={`${-room} ${-height - room} ${length + 2 * room} ${height + room * (dimensions ? 1.9 : 2)}`}
      preserveAspectRatio={dimensions ? "xMidYMid meet" : "xMinYMid meet"}
    >
      <Part stage="changes" pick={pick} title="Water">
        <rect className="level" x={0} y={-water} width={length} height={water} fill="var(--color-water)" />
        <path d={`M0 ${-water}H${length}`} stroke="var(--color-edge)" strokeWidth={scale * 0.0022} />
      </Part>
      <Bed section={section} pick={pick} />
      <Hardscape section={section} pick={pick} />
      <Plants section={section} />
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
      {dimensions && <Dimensions section={section} scale={scale} />}
    </svg>
  );
});

type PartProps = { stage: string; pick?: (stage: string) => void; title: string; children: React.ReactNode };

function Part({ stage, pick, title, children }: PartProps) {
  if (!pick) return <g>{children}</g>;
  return (
    <g className="cursor-pointer" onClick={() => pick(stage)}>
      <title>{title}</title>
      {children}
    </g>
  );
}

type Drawn = { section: Section; pick?: (stage: string) => void };

function Bed({ section, pick }: Drawn) {
  const { length_cm: length, bed_front_cm: front, bed_back_cm: back } = section;
  if (front + back === 0) return null;
  const near = Math.min(front, back);
  const far = Math.max(front, back);
  return (
    <Part stage="tank" pick={pick} title="Bed">
      <rect x={0} y={-far} width={length} height={far} fill="var(--color-sand)" opacity={0.55} />
      <rect x={0} y={-near} width={length} height={near} fill="var(--color-sand)" />
    </Part>
  );
}

function Hardscape({ section, pick }: Drawn) {
  const heap = stones(section);
  const bed = section.bed_front_cm * 0.8;
  const reach = section.wood_l > 0 ? Math.min(section.length_cm * 0.34, 12 + section.wood_l * 5) : 0;
  const up = Math.min(section.water_cm * 0.78, reach * 0.62);
  const x = section.length_cm * 0.24;
  const thick = Math.min(5, 1.2 + section.wood_l * 0.22);
  return (
    <Part stage="tank" pick={pick} title="Rock and wood">
      {reach > 0 && (
        <path
          fill="var(--color-wood)"
          d={
            `M${x} ${-bed}C${x + reach * 0.1} ${-up * 0.7} ${x + reach * 0.4} ${-up} ${x + reach} ${-up}` +
            `C${x + reach * 0.55} ${-up + thick * 0.6} ${x + reach * 0.3} ${-up * 0.6} ${x + thick * 2.6} ${-bed}Z` +
            `M${x + reach * 0.24} ${-up * 0.66}L${x + reach * 0.1} ${-up * 1.08}L${x + reach * 0.32} ${-up * 0.78}Z`
          }
        />
      )}
      {heap && (
        <path
          fill="var(--color-stone)"
          d={
            `M${heap.x} ${-bed}L${heap.x + heap.width * 0.12} ${-bed - heap.height * 0.55}` +
            `L${heap.x + heap.width * 0.36} ${-bed - heap.height}L${heap.x + heap.width * 0.62} ${-bed - heap.height * 0.86}` +
            `L${heap.x + heap.width * 0.86} ${-bed - heap.height * 0.4}L${heap.x + heap.width} ${-bed}Z`
          }
        />
      )}
    </Part>
  );
}

function Plants({ section }: { section: Section }) {
  const bed = Math.min(section.bed_front_cm, section.bed_back_cm) * 0.7;
  const width = Math.max(0.5, section.length_cm * 0.006);
  if (section.plants === "floating") {
    const count = Math.round((section.plant_cover_frac * section.length_cm) / 5);
    return (
      <g fill="var(--color-plant)">
        {Array.from({ length: count }, (_, i) => (
          <ellipse key={i} cx={3 + i * 4.6} cy={-section.water_cm} rx={2.1} ry={0.7} />
        ))}
      </g>
    );
  }
  return (
    <g fill="none" stroke="var(--color-plant)" strokeWidth={width} strokeLinecap="round">
      {stems(section).map(({ x, height, lean }, i) => (
        <path
          key={i}
          d={`M${x} ${-bed}C${x + lean} ${-bed - height * 0.35} ${x - lean} ${-bed - height * 0.7} ${x + lean * 0.5} ${-bed - height}`}
        />
      ))}
    </g>
  );
}

function Animals({ section, pick }: Drawn) {
  return (
    <Part stage="animals" pick={pick} title="Animals, full grown, to scale">
      <g fill="var(--color-animal)">
        {placed(section).map(({ shape, length, x, y, left }, i) => (
          <path
            key={i}
            d={silhouette(shape).path}
            transform={`translate(${x} ${-y}) scale(${left ? -length : length} ${length}) translate(-0.5 0)`}
          />
        ))}
      </g>
    </Part>
  );
}

function Hardware({ section, pick, scale }: Drawn & { scale: number }) {
  const { length_cm: length, height_cm: height, water_cm: water } = section;
  const pipe = scale * 0.008;
  const canister = section.filters.some(
    (kind) => kind === "canister" || kind === "moving_bed" || kind === "hang_on",
  );
  const sponges = section.filters.filter((kind) => kind === "sponge").length;
  const x = length - pipe * 3;
  return (
    <>
      {section.closed && (
        <path
          d={`M0 ${-height - pipe * 0.4}H${length}`}
          stroke="var(--color-pipe)"
          strokeWidth={pipe * 0.7}
        />
      )}
      {section.heated && (
        <Part stage="heat" pick={pick} title="Heater">
          <rect
            x={pipe * 2.2}
            y={-water * 0.8}
            width={pipe * 1.1}
            height={water * 0.42}
            rx={pipe * 0.5}
            fill="var(--color-brass)"
          />
        </Part>
      )}
      <Part stage="filter" pick={pick} title="Filter">
        {canister && (
          <path
            fill="none"
            stroke="var(--color-pipe)"
            strokeWidth={pipe}
            strokeLinejoin="round"
            d={`M${x} ${-water * 0.3}V${-height - pipe * 3}H${length + pipe * 4}V${-height * 0.55}`}
          />
        )}
        {Array.from({ length: sponges }, (_, i) => {
          const wide = Math.min(9, length * 0.12);
          const left = length - (i + 1) * (wide + 3);
          return (
            <g key={i}>
              <rect
                x={left}
                y={-wide * 1.3 - 1}
                width={wide}
                height={wide * 1.3}
                rx={1.4}
                fill="var(--color-ink)"
                opacity={0.78}
              />
              <path
                d={`M${left + wide / 2} ${-wide * 1.3}V${-water + 1.5}H${left - 2}`}
                fill="none"
                stroke="var(--color-pipe)"
                strokeWidth={pipe * 0.9}
              />
            </g>
          );
        })}
      </Part>
    </>
  );
}

function Dimensions({ section, scale }: { section: Section; scale: number }) {
  const units = useUnits();
  const { length_cm: length, height_cm: height, water_cm: water } = section;
  const tick = scale * 0.008;
  const type = scale * 0.021;
  const off = scale * 0.035;
  const text = { fontSize: type, className: "num", fill: "var(--color-quiet)" };
  return (
    <g stroke="var(--color-mark)" strokeWidth={scale * 0.0014} fill="none">
      <path d={`M0 ${off}H${length}M0 ${off - tick}V${off + tick}M${length} ${off - tick}V${off + tick}`} />
      <path
        d={`M${-off} 0V${-height}M${-off - tick} 0H${-off + tick}M${-off - tick} ${-height}H${-off + tick}`}
      />
      <g stroke="none">
        <Label x={length / 2} y={off} words={units.text(length, "length")} {...text} />
        <Label x={-off} y={-height / 2} words={units.text(height, "length")} turned {...text} />
        <text x={length * 0.02} y={-water + type * 1.25} {...text}>
          water {units.text(water, "length")}
        </text>
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
function Label({ x, y, words, turned, fontSize, ...rest }: LabelProps) {
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
