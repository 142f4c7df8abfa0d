import { shore } from "@/lib/drawing/section";
import { Part, type Drawn } from "./Part";

const BLOWN = [-0.8, 0, 0.8];

export function Hardware({ section, pick, scale }: Drawn & { scale: number }) {
  const { length_cm: length, height_cm: height, water_cm: water } = section;
  const pipe = scale * 0.008;
  const canister = section.filters.some(
    (kind) => kind === "canister" || kind === "moving_bed" || kind === "hang_on",
  );
  const sponges = section.filters.filter((kind) => kind === "sponge").length;
  const x = length - pipe * 3;
  return (
    <>
      <Lid lid={section.lid} length={length} height={height} pipe={pipe} />
      {section.fan && (
        <Part stage="heat" pick={pick} title="Fan">
          <Fan x={length * 0.3} rim={-height} surface={-water} pipe={pipe} />
        </Part>
      )}
      {section.heated && section.heaters_in === "tank" && (
        <Part stage="heat" pick={pick} title="Heater">
          <rect
            x={Math.min(shore(section) * 1.25, length * 0.7) + pipe * 2.2}
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

/** Glass as a line, mesh as a broken one; a half cover ends half-way. */
function Lid({ lid, length, height, pipe }: { lid: string; length: number; height: number; pipe: number }) {
  if (lid === "open") return null;
  return (
    <path
      data-lid={lid}
      d={`M0 ${-height - pipe * 0.4}H${lid === "part" ? length / 2 : length}`}
      stroke="var(--color-pipe)"
      strokeWidth={pipe * 0.7}
      strokeDasharray={lid === "mesh" ? `${pipe * 0.5} ${pipe * 0.5}` : undefined}
    />
  );
}

/** A fan on the rim, seen from its side, and the air it blows down on the water. */
function Fan({ x, rim, surface, pipe }: { x: number; rim: number; surface: number; pipe: number }) {
  const top = rim - pipe * 3;
  const wide = pipe * 4.4;
  const reach = surface - top - pipe * 1.6;
  return (
    <g fill="none" stroke="var(--color-pipe)" strokeWidth={pipe * 0.5} strokeLinecap="round">
      <path d={`M0 ${rim}V${top + pipe * 0.5}H${x - wide / 2}`} />
      <rect
        x={x - wide / 2}
        y={top}
        width={wide}
        height={pipe}
        rx={pipe * 0.3}
        fill="var(--color-brass)"
        stroke="none"
      />
      {BLOWN.map((side) => (
        <path
          key={side}
          opacity={0.7}
          strokeWidth={pipe * 0.3}
          d={`M${x + side * pipe * 1.6} ${top + pipe * 1.6}q${pipe * 0.6} ${reach / 4} 0 ${reach / 2}t0 ${reach / 2}`}
        />
      ))}
    </g>
  );
}
