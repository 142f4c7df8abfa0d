import { inkOf } from "@/ui/charts/Frame";
import { useUnits } from "@/ui/units";
import { useSheet } from "../../context";

const WIDTH = 560;
const LEFT = 8;
const RIGHT = 8;

/** Where the water settles in each case, along one line of temperature, against what the animals bear. */
export function HeatChart() {
  const figures = useSheet((sheet) => sheet.figures);
  const settlings = useSheet((sheet) => sheet.settlings);
  const units = useUnits();
  const low = figures.animals_low_c?.value;
  const high = figures.animals_high_c?.value;
  if (low == null || high == null || settlings.length === 0) return null;
  const all = [low, high, ...settlings.map(({ temp_c }) => temp_c)];
  const from = Math.floor(Math.min(...all) - 1);
  const to = Math.ceil(Math.max(...all) + 1);
  const x = (c: number) => LEFT + ((c - from) / (to - from)) * (WIDTH - LEFT - RIGHT);
  const row = 24;
  const height = 34 + settlings.length * row;
  const words = `The animals bear ${units.text(low, "temperature")} to ${units.text(high, "temperature")}. ${settlings
    .map((row) => `${row.label}: ${units.text(row.temp_c, "temperature")}`)
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
        {settlings.map(({ label, temp_c, harms }, i) => {
          const y = 32 + i * row;
          const toLeft = x(temp_c) > WIDTH * 0.55;
          return (
            <g key={label} fill={inkOf(harms)}>
              <path d={`M${LEFT} ${y}H${WIDTH - RIGHT}`} stroke="var(--color-line)" strokeWidth={0.7} />
              <circle cx={x(temp_c)} cy={y} r={4.5} />
              <text
                x={x(temp_c) + (toLeft ? -9 : 9)}
                y={y - 4}
                textAnchor={toLeft ? "end" : "start"}
                fontSize={11.5}
              >
                {label} <tspan className="num">{units.text(temp_c, "temperature")}</tspan>
              </text>
            </g>
          );
        })}
      </svg>
    </figure>
  );
}
