import { extent, max } from "d3-array";
import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import type { SawTooth } from "@/api/client";
import { useUnits } from "@/ui/units";
import { useSheet } from "../../context";
import { EdgeLabel, Frame, LimitLine, type Plot } from "@/ui/charts/Frame";
import { clearOf } from "@/ui/charts/labels";

const PLOT: Plot = { width: 560, height: 204, left: 44, right: 96, top: 26, bottom: 26 };
type Corner = SawTooth["likely"][number];

/** Nitrate over eight settled weeks: the likely line, the band of the feed, the limit, the source as the floor. */
export function NitrateChart() {
  const saw = useSheet((sheet) => sheet.saw_tooth);
  const units = useUnits();
  if (!saw) return null;
  const shown = (value: number) => units.shown(value, "nitrate");
  const highest = Math.max(max(saw.high, (corner) => corner.nitrate) ?? 0, saw.target) * 1.08;
  const x = scaleLinear(extent(saw.likely, (c) => c.day) as [number, number], [
    PLOT.left,
    PLOT.width - PLOT.right,
  ]);
  const y = scaleLinear([0, shown(highest)], [PLOT.height - PLOT.bottom, PLOT.top]).nice();
  const path = line<Corner>(
    (c) => x(c.day),
    (c) => y(shown(c.nitrate)),
  );
  const band = area<Corner>(
    (c) => x(c.day),
    (c, i) => y(shown(saw.low[i]?.nitrate ?? c.nitrate)),
    (c) => y(shown(c.nitrate)),
  );
  const last = saw.likely[saw.likely.length - 1];
  const colour = saw.over ? "var(--color-short)" : "var(--color-edge)";
  const peak = max(saw.likely, (c) => c.nitrate) ?? 0;
  const words = `Nitrate over eight settled weeks: up to ${units.text(peak, "nitrate")} before a change, limit ${units.text(saw.target, "nitrate")}, source ${units.text(saw.source, "nitrate")}.`;
  return (
    <figure className="mb-5">
      <Frame
        plot={PLOT}
        y={y}
        words={words}
        unit={units.unit("nitrate").label}
        xTicks={[0, 14, 28, 42, 56].map((day) => [x(day), `${day / 7} wk`])}
      >
        <path d={band(saw.high) ?? ""} fill={colour} opacity={0.13} />
        <path d={path(saw.likely) ?? ""} fill="none" stroke={colour} strokeWidth={1.6} />
        <LimitLine plot={PLOT} at={y(shown(saw.target))} words="your limit" />
        <LimitLine plot={PLOT} at={y(shown(saw.source))} words="change water" dashed />
        {last && (
          <EdgeLabel
            plot={PLOT}
            at={clearOf(y(shown(last.nitrate)), [y(shown(saw.target)), y(shown(saw.source))])}
            words="nitrate"
            colour={colour}
          />
        )}
      </Frame>
      <figcaption className="text-sm text-quiet">
        Eight weeks once settled. The band is how much feed may differ from the usual.
      </figcaption>
    </figure>
  );
}
