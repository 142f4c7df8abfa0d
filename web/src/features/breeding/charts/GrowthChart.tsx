import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import { Frame, type Plot } from "@/ui/charts/Frame";
import { spaced } from "@/ui/charts/labels";
import { ticks } from "@/ui/charts/TimeChart";
import { useUnits } from "@/ui/units";
import { useVenture, useVentureSheet } from "../context";

/** Length by age with its slow and quick end, and where on it each way to sell lies. */
export function GrowthChart() {
  const units = useUnits();
  const growth = useVentureSheet((sheet) => sheet.growth);
  const sales = useVenture((venture) => venture.sales) ?? [];
  if (!growth) return <p className="text-quiet">Enter how they breed to see them grow.</p>;
  const plot: Plot = { width: 640, height: 300, left: 44, right: 24, top: 28, bottom: 24 };
  const shown = (length: number) => units.shown(length, "length");
  const last = growth.days.at(-1) ?? 1;
  const x = scaleLinear([0, last], [plot.left, plot.width - plot.right]);
  const y = scaleLinear(
    [0, shown(1.08 * Math.max(...growth.high_cm))],
    [plot.height - plot.bottom, plot.top],
  ).nice(4);
  const at = [...growth.days.keys()];
  const band = area<number>(
    (i) => x(growth.days[i] ?? 0),
    (i) => y(shown(growth.low_cm[i] ?? 0)),
    (i) => y(shown(growth.high_cm[i] ?? 0)),
  )(at);
  const likely = line<number>(
    (i) => x(growth.days[i] ?? 0),
    (i) => y(shown(growth.likely_cm[i] ?? 0)),
  )(at);
  const heights = spaced(growth.marks.map(({ length_cm }) => y(shown(length_cm)) - 9));
  return (
    <Frame
      plot={plot}
      y={y}
      unit={`length, ${units.unit("length").label}; age in days`}
      words={`Length by age; ${growth.marks.map((mark) => `${mark.name} ready at ${Math.round(mark.day)} days`).join(", ")}.`}
      xTicks={ticks(0, last).map((day) => [x(day), String(day)])}
    >
      <path d={band ?? ""} fill="var(--color-edge)" opacity={0.16} />
      <path d={likely ?? ""} fill="none" stroke="var(--color-edge)" strokeWidth={1.6} />
      {growth.marks.map((mark, i) => {
        const price = Number(sales[mark.sale]?.price_money ?? 0);
        return (
          <g key={mark.sale}>
            <circle
              cx={x(mark.day)}
              cy={y(shown(mark.length_cm))}
              r={4}
              fill="var(--color-paper)"
              stroke="var(--color-ink)"
            />
            <text
              x={Math.max(x(mark.day) - 6, plot.left + 90)}
              y={heights[i]}
              textAnchor="end"
              fontSize={12}
              fill="var(--color-ink)"
            >
              {mark.name}
              {price > 0 && `, ${units.text(price, "money")}`}
            </text>
          </g>
        );
      })}
    </Frame>
  );
}
