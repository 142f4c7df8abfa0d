import { useState } from "react";
import type { Rack, VentureName } from "@/api/client";
import { Says } from "@/ui/figures/Says";
import { useUnits } from "@/ui/units";

type Plan = NonNullable<Rack["plan"]>;

/** Filled in turn, so that neighbours differ; the word on the glass says who it is. */
const FILLS = ["bg-water-deep", "bg-sand", "bg-plant/60", "bg-short-fill/50", "bg-stone/60", "bg-wood/50"];
const EMPTY = 0;

/** The tanks side by side, filled by who is bred in each; picking one says why. */
export function RackDrawing({ plan, names }: { plan: Plan; names: VentureName[] }) {
  const units = useUnits();
  const [picked, pick] = useState<number | null>(null);
  const order = plan.shares.map(({ venture }) => venture);
  const nameOf = (id: number) => names.find((venture) => venture.id === id)?.name ?? "empty";
  const used = Math.max(
    0,
    plan.placed.findIndex(({ venture }) => venture !== EMPTY),
  );
  const at = Math.min(picked ?? used, plan.placed.length - 1);
  const tank = plan.placed[at];
  return (
    <section aria-label="Tanks">
      <ul className="mb-3 grid grid-cols-[repeat(auto-fill,minmax(104px,1fr))] gap-2">
        {plan.placed.map((row, i) => (
          <li key={i}>
            <button
              type="button"
              aria-pressed={i === at}
              onClick={() => pick(i)}
              className={`flex h-19 w-full flex-col justify-end border-2 border-t-0 text-left text-xs ${i === at ? "border-edge" : "border-pipe"}`}
            >
              <span
                className={`flex h-14 flex-col justify-between p-1 ${row.venture === EMPTY ? "" : FILLS[order.indexOf(row.venture) % FILLS.length]}`}
              >
                <span className="line-clamp-2 leading-tight font-semibold">
                  {row.venture === EMPTY ? "empty" : nameOf(row.venture)}
                </span>
                <span className="num">
                  {row.alone_money == null ? "" : units.text(row.alone_money, "money")}
                </span>
              </span>
            </button>
          </li>
        ))}
      </ul>
      {tank && (
        <p role="status" className="mb-3 border-l-3 border-edge pl-3">
          <b>{tank.name}</b>, {units.text(tank.litres, "volume")}: {nameOf(tank.venture)}.{" "}
          <Says sentence={tank.reason} />
        </p>
      )}
    </section>
  );
}
