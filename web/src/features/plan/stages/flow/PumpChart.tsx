import { scaleLinear } from "d3-scale";
import { curveMonotoneX, line } from "d3-shape";
import type { Flow } from "@/api/client";
import { useUnits } from "@/ui/units";
import { useFigure } from "../../context";
import { Frame, type Plot } from "@/ui/charts/Frame";

const PLOT: Plot = { width: 560, height: 204, left: 44, right: 96, top: 26, bottom: 26 };
const TICKS = 5;

/** The pump's curve against what the lift and the pipes ask: where they meet is what it moves. */
export function PumpChart({ flow }: { flow: Flow }) {
  const units = useUnits();
  const most = flow.pump.at(-1)?.flow ?? 1;
  const top = Math.max(...flow.pump.map(({ head }) => head), 0.1) * 1.08;
  const x = scaleLinear([0, most], [PLOT.left, PLOT.width - PLOT.right]);
  const y = scaleLinear([0, units.shown(top, "head")], [PLOT.height - PLOT.bottom, PLOT.top]).nice();
  const at = (head: number) => y(units.shown(head, "head"));
  const path = line<Flow["pump"][number]>(
    (point) => x(point.flow),
    (point) => at(point.head),
  ).curve(curveMonotoneX);
  const system = flow.system.filter(({ head }) => head <= top);
  const met = useFigure("planned_return_lph")?.value ?? 0;
  const head = interpolated(flow.pump, met);
  const measured = useFigure("return_lph")?.value ?? met;
  const label = system.at(-1);
  const words = `The pump moves ${units.text(met, "flow")} against ${units.text(head, "head")}.`;
  return (
    <figure className="mb-5">
      <Frame
        plot={PLOT}
        y={y}
        words={words}
        unit={units.unit("head").label}
        xTicks={x.ticks(TICKS).map((tick) => [x(tick), units.number(tick, "flow")])}
      >
        <path d={path(flow.pump) ?? ""} fill="none" stroke="var(--color-ink)" strokeWidth={1.6} />
        <path d={path(system) ?? ""} fill="none" stroke="var(--color-edge)" strokeWidth={1.6} />
        <text
          x={x(most * 0.1)}
          y={at(interpolated(flow.pump, most * 0.1)) - 8}
          fontSize={11}
          fill="var(--color-ink)"
        >
          pump
        </text>
        {label && (
          <text
            x={x(label.flow) + 6}
            y={at(label.head) + (label.flow < most * 0.9 ? -10 : 10)}
            fontSize={11}
            fill="var(--color-edge-deep)"
          >
            lift and pipes
          </text>
        )}
        {met > 0 && (
          <>
            <path
              d={`M${x(met)} ${at(head)}V${PLOT.height - PLOT.bottom}`}
              stroke="var(--color-ink)"
              strokeDasharray="2 3"
            />
            <circle
              cx={x(met)}
              cy={at(head)}
              r={4.5}
              fill="var(--color-paper)"
              stroke="var(--color-ink)"
              strokeWidth={1.6}
            />
          </>
        )}
        {measured !== met && measured <= most && (
          <g>
            <path
              d={`M${x(measured)} ${PLOT.top}V${PLOT.height - PLOT.bottom}`}
              stroke="var(--color-brass)"
            />
            <text x={x(measured) + 4} y={PLOT.top + 10} fontSize={11} fill="var(--color-brass)">
              measured
            </text>
          </g>
        )}
      </Frame>
    </figure>
  );
}

function interpolated(points: Flow["pump"], flow: number): number {
  const after = points.findIndex((point) => point.flow >= flow);
  const b = points[after];
  const a = points[after - 1];
  if (!b) return 0;
  if (!a) return b.head;
  return a.head + ((b.head - a.head) * (flow - a.flow)) / (b.flow - a.flow);
}
