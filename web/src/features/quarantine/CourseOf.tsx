import type { CourseOut } from "@/api/client";
import { shortDay } from "@/lib/shown/days";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { useUnits } from "@/ui/units";

interface CourseProps {
  row: CourseOut;
  change: () => void;
}

const WIDTH = 560;
const HEIGHT = 96;

/** A course: its doses by day in real litres, and how much of it stands in the water. */
export function CourseOf({ row, change }: CourseProps) {
  const units = useUnits();
  const { course } = row;
  const amount = (value: number) => `${units.text(value, "ratio")} ${course.dose_unit}`;
  return (
    <section aria-label={course.product} className="mt-3">
      <h3 className="flex flex-wrap items-baseline gap-x-3">
        <span className="font-semibold">{course.product}</span>
        <span className="text-sm text-quiet">
          {row.running ? "until" : "ended"} {shortDay(row.ends)}; a whole dose here is{" "}
          {amount(row.label_dose)}
        </span>
        <Button look="word" onClick={change} aria-label={`Change ${course.product}`}>
          Change
        </Button>
      </h3>
      {row.endangered.map((sentence, i) => (
        <p key={i} role="alert" className="text-sm text-short">
          <Says sentence={sentence} />
        </p>
      ))}
      <Levels row={row} />
      <ol aria-label={`Doses of ${course.product}`} className="text-sm">
        {row.days
          .filter(({ given }) => given > 0)
          .map((day) => (
            <li key={day.day}>
              <span className="num inline-block w-24 text-quiet">{shortDay(day.day)}</span>{" "}
              {amount(day.given)}
              {day.made_good > 0 && (
                <span className="text-quiet"> , of it {amount(day.made_good)} for what the change took</span>
              )}
            </li>
          ))}
      </ol>
      <p className="text-sm text-quiet">
        {row.rinses > 0 && `Out again after it: ${row.rinses} daily changes, or carbon. `}
        Reckoned by dilution alone, nothing breaks down. The label and a vet decide.
      </p>
    </section>
  );
}

/** How many of the label's doses stand in the water, day by day; dashed without what makes the changes good. */
function Levels({ row }: { row: CourseOut }) {
  const top = Math.max(1, ...row.days.map(({ level }) => level));
  const x = (day: number) => 30 + (day / Math.max(1, row.days.length)) * (WIDTH - 100);
  const y = (level: number) => HEIGHT - 18 - (level / (top * 1.1)) * (HEIGHT - 34);
  const steps = (of: "level" | "untended") =>
    row.days.map((day, i) => `${i ? "V" : `M${x(0)} `}${y(day[of])}H${x(i + 1)}`).join("");
  const last = row.days.at(-1);
  if (!last) return null;
  const apart = row.days.some(({ level, untended }) => Math.abs(level - untended) > 0.02);
  return (
    <svg
      role="img"
      aria-label={`Doses in the water: ${row.days.map((day) => `${shortDay(day.day)} ${day.level.toFixed(2)}`).join(", ")}.`}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full max-w-xl"
    >
      <text x={0} y={10} fontSize={11} fill="var(--color-quiet)">
        doses in the water
      </text>
      {[0, 1, ...(top > 1.5 ? [2] : [])].map((level) => (
        <g key={level}>
          <path d={`M30 ${y(level)}H${x(row.days.length)}`} stroke="var(--color-line)" strokeWidth={0.8} />
          <text
            x={24}
            y={y(level) + 4}
            textAnchor="end"
            fontSize={11}
            className="num"
            fill="var(--color-quiet)"
          >
            {level}
          </text>
        </g>
      ))}
      {apart && (
        <>
          <path
            d={steps("untended")}
            fill="none"
            stroke="var(--color-mark)"
            strokeWidth={1.2}
            strokeDasharray="4 3"
          />
          <text x={x(row.days.length) + 4} y={y(last.untended) + 4} fontSize={11} fill="var(--color-quiet)">
            not made good
          </text>
        </>
      )}
      <path d={steps("level")} fill="none" stroke="var(--color-brass)" strokeWidth={1.6} />
      {row.days.map((day, i) => (
        <text
          key={day.day}
          x={x(i + 0.5)}
          y={HEIGHT - 4}
          textAnchor="middle"
          fontSize={11}
          className="num"
          fill="var(--color-quiet)"
        >
          {row.days.length <= 14 || i % 7 === 0 ? i + 1 : ""}
        </text>
      ))}
    </svg>
  );
}
