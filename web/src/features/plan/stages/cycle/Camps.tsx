import type { Forecast } from "@/api/client";
import { Says } from "@/ui/figures/Says";
import { useUnits } from "@/ui/units";
import { usePlan, usePlanInUse } from "../../context";

/** The ways of a tank with animals in it, side by side on this tank. */
export function Camps({ camps }: { camps: Forecast["camps"] }) {
  const { session } = usePlanInUse();
  const chosen = usePlan((plan) => plan.cycle?.camp);
  const units = useUnits();
  if (camps.length === 0) return null;
  const over = (value: number, least: boolean) =>
    `${least && value > 0 ? "0 to " : ""}${value < 0.05 ? "0" : Number(value.toPrecision(2))}`;
  return (
    <section aria-label="Ways side by side" className="mb-5">
      <h3 className="mb-1 font-semibold">With animals in it: the ways side by side</h3>
      <div className="overflow-x-auto">
        <table className="w-full text-left text-sm">
          <thead className="text-quiet">
            <tr className="border-b border-line">
              {["", "clear", "changes", "water", "over: total", "free", "nitrite"].map((head, i) => (
                <th key={i} scope="col" className={`py-1 pr-2 font-normal ${i ? "text-right" : ""}`}>
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {camps.map((camp) => (
              <tr
                key={camp.key}
                className={`border-b border-line/70 align-top ${camp.key === chosen ? "bg-paper" : ""}`}
              >
                <th scope="row" className="py-1 pr-2 font-normal">
                  {camp.key === chosen ? (
                    <b className="font-semibold">{camp.label}</b>
                  ) : (
                    <button
                      type="button"
                      onClick={() => session.edit({ "cycle.camp": camp.key })}
                      className="min-h-8 text-left text-edge-deep hover:underline pointer-coarse:min-h-11"
                    >
                      {camp.label}
                    </button>
                  )}
                  <span className="block text-quiet">
                    <Says sentence={camp.risk} />
                  </span>
                </th>
                <td className="num py-1 pr-2 text-right whitespace-nowrap">
                  {camp.clear_day == null ? "not" : `day ${camp.clear_day}`}
                </td>
                <td className="num py-1 pr-2 text-right">{camp.changes}</td>
                <td className="num py-1 pr-2 text-right whitespace-nowrap">
                  {units.text(camp.litres, "volume")}
                </td>
                <td className="num py-1 pr-2 text-right">{over(camp.over_ammonia, camp.least_over)}</td>
                <td className="num py-1 pr-2 text-right">{over(camp.over_unionised, camp.least_over)}</td>
                <td className="num py-1 text-right">{over(camp.over_nitrite, camp.least_over)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-1 text-sm text-quiet">
        Over: what the animals are exposed to beyond each limit, in mg/L of N times hours, from today on. A
        detoxifier spares them anything from nothing to all of it.
      </p>
    </section>
  );
}
