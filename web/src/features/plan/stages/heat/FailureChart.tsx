import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useUnits } from "@/ui/units";
import { useSheet } from "../../context";
import { Band, EdgeLabel, Frame, inkOf, type Plot } from "@/ui/charts/Frame";
import { spaced } from "@/ui/charts/labels";

const PLOT: Plot = { width: 560, height: 210, left: 44, right: 150, top: 26, bottom: 26 };
const HOURS = 48;

/** Temperature over two days after each failure, against what the animals bear. */
export function FailureChart() {
  const failures = useSheet((sheet) => sheet.failures);
  const figures = useSheet((sheet) => sheet.figures);
  const units = useUnits();
  const low = figures.animals_low_c?.value;
  const high = figures.animals_high_c?.value;
  if (failures.length === 0 || low == null || high == null) return null;
  const shown = (c: number) => units.shown(c, "temperature");
  const all = [...failures.flatMap((row) => row.temps_c), low, high].map(shown);
  const x = scaleLinear([0, HOURS], [PLOT.left, PLOT.width - PLOT.right]);
  const y = scaleLinear(
    [Math.min(...all) - 1, Math.max(...all) + 1],
    [PLOT.height - PLOT.bottom, PLOT.top],
  ).nice();
  const path = line<number>(
    (_, hour) => x(hour),
    (c) => y(shown(c)),
  );
  const ends = spaced(failures.map((row) => y(shown(row.temps_c.at(-1) ?? 0))));
  const words = failures
    .map((row) => `${row.label}: ${units.text(row.temps_c.at(-1) ?? 0, "temperature")} after two days`)
    .join("; ");
  return (
    <figure className="mb-5">
      <figcaption className="mb-1 text-sm font-semibold">Two days after something fails</figcaption>
      <Frame
        plot={PLOT}
        y={y}
        words={words}
        unit={units.unit("temperature").label}
        xTicks={[0, 12, 24, 36, 48].map((hour) => [x(hour), `${hour} h`])}
      >
        <Band plot={PLOT} low={y(shown(low))} high={y(shown(high))} />
        {failures.map((row, i) => (
          <g key={row.label}>
            <path d={path(row.temps_c) ?? ""} fill="none" stroke={inkOf(row.harms)} strokeWidth={1.6} />
            <EdgeLabel
              plot={PLOT}
              at={(ends[i] ?? 0) + 4}
              words={row.label.split(",")[0]!}
              colour={inkOf(row.harms)}
            />
          </g>
        ))}
      </Frame>
      <p className="text-sm text-quiet">The band is what these animals bear.</p>
    </figure>
  );
}
