import type { Working, WorkingNode } from "@/api/client";
import { useUnits } from "@/ui/units";

/** What moves a figure most: each input a little more, alone. */
export function Movers({ working }: { working: Working }) {
  const units = useUnits();
  const node = working.nodes[working.figure] as WorkingNode;
  if (working.movers.length === 0) return null;
  const unit = units.unit(node.kind).label;
  const most = Math.max(...working.movers.map((mover) => Math.abs(mover.change)));
  return (
    <section aria-label="What moves it most" className="mt-4 border-t border-line pt-3">
      <h3 className="mb-1 font-semibold">
        What moves it most{unit && <span className="font-normal text-quiet">, {unit}</span>}
      </h3>
      <ul>
        {working.movers.map((mover) => {
          const width = (Math.abs(mover.change) / most) * 50;
          const by =
            typeof mover.nudge.value === "number"
              ? units.difference(mover.nudge.value, mover.nudge.kind)
              : "";
          return (
            <li
              key={mover.path}
              className="grid grid-cols-[minmax(0,1fr)_88px_auto] items-center gap-2 py-0.5 text-sm"
            >
              <span>
                {mover.label}{" "}
                <span className="num text-quiet">
                  {by} {units.unit(mover.nudge.kind).label}
                </span>
              </span>
              <svg viewBox="0 0 100 10" className="h-2.5 w-22" aria-hidden="true" preserveAspectRatio="none">
                <rect
                  x={mover.change < 0 ? 50 - width : 50}
                  y={1}
                  width={width}
                  height={8}
                  fill="var(--color-edge)"
                />
                <path d="M50 0V10" stroke="var(--color-mark)" />
              </svg>
              <span className="num text-right">{units.difference(mover.change, node.kind)}</span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
