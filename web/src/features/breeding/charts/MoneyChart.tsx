import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import { dayOn } from "@/lib/shown/days";
import { EdgeLabel, Frame, type Plot } from "@/ui/charts/Frame";
import { spaced } from "@/ui/charts/labels";
import { ticks } from "@/ui/charts/TimeChart";
import { useUnits } from "@/ui/units";
import { useVentureSheet } from "../context";
import { monthOf } from "./months";

/** Money in hand from the start: likely with its outer range, and with the hours paid. */
export function MoneyChart() {
  const units = useUnits();
  const course = useVentureSheet((sheet) => sheet.course);
  if (!course) return <p className="text-quiet">Choose a tank to see the money turn.</p>;
  const plot: Plot = { width: 640, height: 320, left: 56, right: 92, top: 28, bottom: 24 };
  const last = course.days.at(-1) ?? 1;
  const all = [...course.cash_low, ...course.cash_high, ...course.cash_worked, 0];
  const x = scaleLinear([0, last], [plot.left, plot.width - plot.right]);
  const y = scaleLinear([Math.min(...all), Math.max(...all)], [plot.height - plot.bottom, plot.top]).nice(5);
  const at = [...course.days.keys()];
  const day = (i: number) => x(course.days[i] ?? 0);
  const path = (values: readonly number[]) => line<number>(day, (i) => y(values[i] ?? 0))(at) ?? "";
  const band = area<number>(
    day,
    (i) => y(course.cash_low[i] ?? 0),
    (i) => y(course.cash_high[i] ?? 0),
  )(at);
  const ends = [course.cash.at(-1) ?? 0, course.cash_worked.at(-1) ?? 0];
  const labels = spaced(ends.map((value) => y(value) + 4));
  return (
    <Frame
      plot={plot}
      y={y}
      unit={`money in hand${units.unit("money").label ? `, ${units.unit("money").label}` : ""}`}
      words={`Money in hand over five years: lowest ${units.text(Math.min(...course.cash), "money")}, at the end ${units.text(ends[0] ?? 0, "money")}, with hours paid ${units.text(ends[1] ?? 0, "money")}.`}
      xTicks={ticks(0, last).map((shown) => [x(shown), monthOf(dayOn(course.start, shown), true)])}
    >
      <path d={band ?? ""} fill="var(--color-edge)" opacity={0.14} />
      <path
        d={`M${plot.left} ${y(0)}H${plot.width - plot.right}`}
        stroke="var(--color-ink)"
        strokeWidth={1}
      />
      <path d={path(course.cash)} fill="none" stroke="var(--color-edge)" strokeWidth={1.8} />
      <path
        d={path(course.cash_worked)}
        fill="none"
        stroke="var(--color-brass)"
        strokeWidth={1.4}
        strokeDasharray="5 4"
      />
      <EdgeLabel plot={plot} at={labels[0] ?? 0} words="hours unpaid" colour="var(--color-edge)" />
      <EdgeLabel plot={plot} at={labels[1] ?? 0} words="hours paid" colour="var(--color-brass)" />
      {course.today_d > 0 && course.today_d < last && (
        <>
          <path
            d={`M${x(course.today_d)} ${plot.top - 6}V${plot.height - plot.bottom}`}
            stroke="var(--color-ink)"
            strokeWidth={0.9}
          />
          <text x={x(course.today_d) + 3} y={plot.top - 1} fontSize={10} fill="var(--color-ink)">
            today
          </text>
        </>
      )}
    </Frame>
  );
}
