import type { NitratePage } from "@/api/client";
import { useUnits } from "@/ui/units";
import { usePlan, usePlanInUse } from "../../context";

const SHORT = { short: "text-short", tight: "text-brass" } as Record<string, string>;

/** Everything as reckoned beside everything as logged: one switch, and what each moves. */
export function Ways({ page }: { page: NitratePage }) {
  const { session } = usePlanInUse();
  const units = useUnits();
  const taken = usePlan((plan) => plan.changes?.logged_rise_nitrate_mg_l_d != null);
  const wasted = usePlan((plan) => plan.stocking?.logged_waste_frac != null);
  const chosen = taken ? "taken" : wasted ? "waste" : "reckoned";
  const { ways } = page;
  if (ways.length < 2) return null;
  const rows = ways[0]!.figures;
  return (
    <section aria-label="As reckoned or as logged" className="mb-5">
      <h3 className="mb-1 font-semibold">What the whole plan goes by</h3>
      <div className="overflow-x-auto">
        <table className="w-full text-left text-sm">
          <thead>
            <tr className="border-b border-line align-bottom">
              <th scope="col">{""}</th>
              {ways.map((way) => (
                <th key={way.key} scope="col" className="py-1 pl-2 font-normal">
                  <label className="flex min-h-8 items-start gap-1.5 pointer-coarse:min-h-11">
                    <input
                      type="radio"
                      name="way"
                      className="mt-1 accent-edge"
                      checked={way.key === chosen}
                      onChange={() => session.edit(way.changes)}
                    />
                    {way.label}
                  </label>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, i) => (
              <tr key={row.key} className="border-b border-line/70">
                <th scope="row" className="py-1 font-normal">
                  {row.label}, <span className="text-quiet">{units.unit(row.kind).label}</span>
                </th>
                {ways.map((way) => {
                  const { value, kind, state } = way.figures[i]!;
                  return (
                    <td key={way.key} className={`num py-1 pl-2 ${SHORT[state] ?? ""}`}>
                      {value == null ? "–" : units.number(value, kind)}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-1 text-sm text-quiet">
        Nitrate alone can not tell whether less is fed, or as much is made and something takes it: the filter
        and the oxygen hang on which, so say it.
      </p>
    </section>
  );
}
