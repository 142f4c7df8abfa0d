import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { dayOn } from "@/lib/shown/days";
import { Frame, LimitLine, type Plot } from "@/ui/charts/Frame";
import { ticks } from "@/ui/charts/TimeChart";
import { useNarrow } from "@/ui/useNarrow";
import { useVentureSheet } from "../context";
import { monthOf } from "./months";

const ROW = 17;
const TOP = 20;

/** Tanks by days: which brood has which raising tank, and when each grow-out tank is in use; under it the young through time. */
export function TanksChart() {
  const spans = useVentureSheet((sheet) => sheet.spans) ?? [];
  const course = useVentureSheet((sheet) => sheet.course);
  const narrow = useNarrow();
  if (!course) return <p className="text-quiet">Choose a tank, and say how the young go.</p>;
  const tanks = [...new Set(spans.map(({ tank }) => tank))].sort((a, b) =>
    a.localeCompare(b, "en", { numeric: true }),
  );
  const width = narrow ? 430 : 640;
  const left = 86;
  const from = course.today_d;
  const to = Math.max(from + 60, ...spans.map(({ to_d }) => to_d));
  const x = scaleLinear([from, to], [left, width - 8]);
  const height = TOP + tanks.length * ROW + 24;
  const marks = ticks(0, to - from).map((day) => day + from);
  return (
    <>
      {tanks.length > 0 && (
        <svg
          role="img"
          aria-label={`Tanks in use from today on: ${tanks.length} of them, ${spans.length} stays.`}
          viewBox={`0 0 ${width} ${height}`}
          className="mb-4 w-full"
        >
          {marks.map((day) => (
            <g key={day}>
              <path d={`M${x(day)} ${TOP - 4}V${height - 20}`} stroke="var(--color-line)" strokeWidth={0.8} />
              <text
                x={x(day)}
                y={height - 6}
                textAnchor={day === from ? "start" : "middle"}
                fontSize={11}
                className="num"
                fill="var(--color-quiet)"
              >
                {day === from ? "today" : monthOf(dayOn(course.start, Math.round(day)))}
              </text>
            </g>
          ))}
          {tanks.map((tank, i) => (
            <text key={tank} x={0} y={TOP + i * ROW + 11} fontSize={11.5} fill="var(--color-ink)">
              {tank}
            </text>
          ))}
          {spans.map(({ tank, from_d, to_d }, i) => (
            <rect
              key={i}
              x={x(from_d) + 0.5}
              y={TOP + tanks.indexOf(tank) * ROW + 1}
              width={Math.max(1.5, x(to_d) - x(from_d) - 1)}
              height={ROW - 6}
              fill={tank.startsWith("Raising") ? "var(--color-water-deep)" : "var(--color-edge)"}
              opacity={tank.startsWith("Raising") ? 1 : 0.75}
            />
          ))}
        </svg>
      )}
      <Young />
    </>
  );
}

/** Young at a time over five years, with what they come to on the mean. */
function Young() {
  const course = useVentureSheet((sheet) => sheet.course);
  const mean = useVentureSheet(({ figures }) => figures.present?.value);
  if (!course || mean == null) return null;
  const plot: Plot = { width: 640, height: 150, left: 44, right: 78, top: 24, bottom: 22 };
  const last = course.days.at(-1) ?? 1;
  const x = scaleLinear([0, last], [plot.left, plot.width - plot.right]);
  const y = scaleLinear(
    [0, 1.05 * Math.max(mean, ...course.young)],
    [plot.height - plot.bottom, plot.top],
  ).nice(4);
  const path = line<number>(
    (day) => x(day),
    (_, i) => y(course.young[i] ?? 0),
  )([...course.days]);
  return (
    <Frame
      plot={plot}
      y={y}
      unit="young at a time"
      words={`Young at a time over five years: ${Math.round(course.mean_young)} on the mean once steady, ${Math.round(mean)} by Little's law.`}
      xTicks={ticks(0, last).map((day) => [x(day), monthOf(dayOn(course.start, day), true)])}
    >
      <path d={path ?? ""} fill="none" stroke="var(--color-edge)" strokeWidth={1.4} />
      <LimitLine plot={plot} at={y(mean)} words={`steady ${Math.round(mean)}`} dashed />
      {course.today_d > 0 && course.today_d < last && (
        <path
          d={`M${x(course.today_d)} ${plot.top - 6}V${plot.height - plot.bottom}`}
          stroke="var(--color-ink)"
          strokeWidth={0.9}
        />
      )}
    </Frame>
  );
}
