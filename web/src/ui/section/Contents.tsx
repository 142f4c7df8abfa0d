import type { Section } from "@/api/client";
import { floating, placed, stems, stones } from "@/lib/drawing/section";
import { silhouette } from "@/lib/drawing/silhouettes";
import { Part, type Drawn } from "./Part";

export function Bed({ section, pick }: Drawn) {
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

export function Hardscape({ section, pick }: Drawn) {
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

export function Plants({ section }: { section: Section }) {
  const bed = Math.min(section.bed_front_cm, section.bed_back_cm) * 0.7;
  const width = Math.max(0.5, section.length_cm * 0.006);
  const leaves = Math.round((floating(section) * section.length_cm) / 5);
  return (
    <>
      <g fill="var(--color-plant)">
        {Array.from({ length: leaves }, (_, i) => (
          <ellipse key={i} cx={3 + i * 4.6} cy={-section.water_cm} rx={2.1} ry={0.7} />
        ))}
      </g>
      <g fill="none" stroke="var(--color-plant)" strokeWidth={width} strokeLinecap="round">
        {stems(section).map(({ x, height, lean }, i) => (
          <path
            key={i}
            d={`M${x} ${-bed}C${x + lean} ${-bed - height * 0.35} ${x - lean} ${-bed - height * 0.7} ${x + lean * 0.5} ${-bed - height}`}
          />
        ))}
      </g>
    </>
  );
}

export function Animals({ section, pick }: Drawn) {
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
