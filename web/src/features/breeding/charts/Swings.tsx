import { useUnits } from "@/ui/units";
import { useVentureSheet } from "../context";

const WIDTH = 100;

/** What moves the margin of a tank and week most: each thing alone at its bad and its good end, around what is likely. */
export function Swings() {
  const units = useUnits();
  const rows = useVentureSheet((sheet) => sheet.swings) ?? [];
  const likely = useVentureSheet(({ figures }) => figures.tank_margin_money?.value);
  const shown = rows.filter((row) => row.high_money - row.low_money > 0.005).slice(0, 6);
  if (likely == null || shown.length === 0) return null;
  const least = Math.min(likely, ...shown.map((row) => row.low_money));
  const most = Math.max(likely, ...shown.map((row) => row.high_money));
  const x = (value: number) => ((value - least) / (most - least || 1)) * WIDTH;
  return (
    <section aria-label="What moves it most" className="mb-5">
      <h3 className="mb-1 text-sm font-semibold">What moves it most, a tank and week</h3>
      <ul>
        {shown.map((row) => (
          <li
            key={row.what}
            className="grid grid-cols-[88px_minmax(0,1fr)_112px] items-center gap-3 py-0.5 text-sm"
          >
            <span className="text-quiet">{row.what}</span>
            <svg
              viewBox={`0 0 ${WIDTH} 10`}
              preserveAspectRatio="none"
              className="h-2.5 w-full"
              aria-hidden="true"
            >
              <rect
                x={x(row.low_money)}
                width={x(row.high_money) - x(row.low_money)}
                y={2}
                height={6}
                fill="var(--color-water-deep)"
              />
              <path
                d={`M${x(likely)} 0V10`}
                stroke="var(--color-ink)"
                strokeWidth={1}
                vectorEffect="non-scaling-stroke"
              />
            </svg>
            <span className="num text-right">
              {units.number(row.low_money, "money")} to {units.number(row.high_money, "money")}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
