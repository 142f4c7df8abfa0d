import { Part, type Drawn } from "./Part";

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
      {section.closed && (
        <path
          d={`M0 ${-height - pipe * 0.4}H${length}`}
          stroke="var(--color-pipe)"
          strokeWidth={pipe * 0.7}
        />
      )}
      {section.heated && section.heaters_in === "tank" && (
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
