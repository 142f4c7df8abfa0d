import { useUnits } from "@/ui/units";
import { usePlan, useSheet } from "../context";

const WIDTH = 560;
const LEFT = 8;
const RIGHT = 8;

/** Where the water settles in each case, along one line of temperature, against what the animals bear. */
export function HeatChart() {
  const figures = useSheet((sheet) => sheet.figures);
  const heat = usePlan((plan) => plan.heat);
  const units = useUnits();
  const value = (key: string) => figures[key]?.value ?? null;
  const low = value("animals_low_c");
  const high = value("animals_high_c");
  const cases: [string, number | null][] = heat.heated
    ? [
        ["one heater dead, coldest night", value("one_dead_c")],
        ["as kept", value("water_c")],
        ["no heater, hottest day", value("summer_c")],
        ["one stuck on, hottest day", value("stuck_on_c")],
      ]
    : [
        ["coldest night", value("winter_c")],
        ["room’s mean", value("water_c")],
        ["hottest day", value("summer_c")],
      ];
  const known = cases.filter((entry): entry is [string, number] => entry[1] !== null);
  if (low === null || high === null || known.length === 0) return null;
  const all = [low, high, ...known.map(([, c]) => c)];
  const from = Math.floor(Math.min(...all) - 1);
  const to = Math.ceil(Math.max(...all) + 1);
  const x = (c: number) => LEFT + ((c - from) / (to - from)) * (WIDTH - LEFT - RIGHT);
  const row = 24;
  const height = 34 + known.length * row;
  const words = `The animals bear ${units.text(low, "temperature")} to ${units.text(high, "temperature")}. ${known
    .map(([name, c]) => `${name}: ${units.text(c, "temperature")}`)
    .join("; ")}.`;
  return (
    <figure className="mb-5">
      <figcaption className="mb-1 text-sm font-semibold">Where the water ends up</figcaption>
      <svg role="img" aria-label={words} viewBox={`0 0 ${WIDTH} ${height}`} className="w-full max-w-2xl">
        <rect
          x={x(low)}
          y={16}
          width={Math.max(2, x(high) - x(low))}
          height={height - 16}
          fill="var(--color-water)"
        />
        <text x={(x(low) + x(high)) / 2} y={11} textAnchor="middle" fontSize={11} fill="var(--color-quiet)">
          they bear {units.text(low, "temperature")} to {units.text(high, "temperature")}
        </text>
        {known.map(([name, c], i) => {
          const y = 32 + i * row;
          // Without a heater the hottest day can only be too warm; heaters see to the rest.
          const out = c > high || (c < low && !name.startsWith("no heater"));
          const colour = out ? "var(--color-short)" : "var(--color-ink)";
          const toLeft = x(c) > WIDTH * 0.55;
          return (
            <g key={name} fill={colour}>
              <path d={`M${LEFT} ${y}H${WIDTH - RIGHT}`} stroke="var(--color-line)" strokeWidth={0.7} />
              <circle cx={x(c)} cy={y} r={4.5} />
              <text
                x={x(c) + (toLeft ? -9 : 9)}
                y={y - 4}
                textAnchor={toLeft ? "end" : "start"}
                fontSize={11.5}
              >
                {name} <tspan className="num">{units.text(c, "temperature")}</tspan>
              </text>
            </g>
          );
        })}
      </svg>
    </figure>
  );
}
