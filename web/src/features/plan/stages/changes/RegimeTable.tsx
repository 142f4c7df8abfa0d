import type { RegimeRow } from "@/api/client";
import { useUnits } from "@/ui/units";
import { SmallSaw } from "./SmallSaw";
import { useFigure, usePlan, usePlanInUse, useSheet } from "../../context";

const MOST_SHOWN = 2.2;

/** Every regime side by side: what nitrate settles at, and what it asks for in water, minutes and shock. */
export function RegimeTable() {
  const regimes = useSheet((sheet) => sheet.regimes);
  const target = usePlan((plan) => plan.changes.target_nitrate_mg_l) ?? 0;
  const source = useFigure("new_nitrate_mg_l")?.value ?? 0;
  const units = useUnits();
  if (regimes.length === 0) return null;
  const top = Math.min(Math.max(...regimes.map((row) => row.peak), target * 1.1), target * MOST_SHOWN);
  const read = regimes.some((row) => row.settles_d != null);
  return (
    <section aria-labelledby="regimes" className="mb-6">
      <h3 id="regimes" className="mb-1 font-semibold">
        Regimes side by side
      </h3>
      <div className="overflow-x-auto">
        <table className="w-full text-left text-sm">
          <thead className="text-quiet">
            <tr className="border-b border-line">
              <Head left>Regime</Head>
              <Head left>four weeks</Head>
              <Head>peak</Head>
              <Head>mean</Head>
              <Head>{units.unit("volume").label}/wk</Head>
              <Head>min</Head>
              <Head>shock</Head>
              <Head>age</Head>
              {read && <Head>there in</Head>}
            </tr>
          </thead>
          <tbody>
            {regimes.map((row) => (
              <Row key={row.label} row={row} top={top} target={target} source={source} read={read} />
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-1 text-sm text-quiet">
        Nitrate in {units.unit("nitrate").label}. Line: your limit. Dashed: the change water; no change goes
        below it. Shock: the step of one change as a share of what the most delicate aboard bears. Age: how
        long water stays on the mean.
      </p>
    </section>
  );
}

function Head({ children, left }: { children: React.ReactNode; left?: boolean }) {
  return (
    <th scope="col" className={`py-1 pr-2 font-normal whitespace-nowrap ${left ? "" : "text-right"}`}>
      {children}
    </th>
  );
}

interface RowProps {
  row: RegimeRow;
  top: number;
  target: number;
  source: number;
  read: boolean;
}

function Row({ row, top, target, source, read }: RowProps) {
  const units = useUnits();
  const { session } = usePlanInUse();
  const short = (over: boolean) => (over ? "text-short" : "");
  const cell = "num py-1 pr-2 text-right whitespace-nowrap";
  const use = () =>
    session.edit({
      "changes.regime": row.regime,
      "changes.change_frac": Math.round(row.change_frac * 1000) / 1000,
      ...(row.weekdays.length ? { "changes.weekdays": row.weekdays } : {}),
      ...(row.regime === "pulses" ? { "changes.pulses_d": 1 } : {}),
    });
  return (
    <tr className={`border-b border-line/70 ${row.now ? "bg-paper font-semibold" : ""}`}>
      <th scope="row" className="py-1 pr-2 font-normal">
        {row.now ? (
          <b className="px-1.5 font-semibold">{row.label}</b>
        ) : (
          <button
            type="button"
            aria-label={`Use ${row.label}`}
            title="Use this regime"
            onClick={use}
            className="min-h-8 px-1.5 text-left text-edge-deep underline-offset-4 hover:underline pointer-coarse:min-h-11"
          >
            {row.label}
            {row.regime === "trigger" && `, every ${units.text(row.gap_d, "days")}`}
          </button>
        )}
      </th>
      <td className="pr-2">
        <SmallSaw row={row} top={top} target={target} source={source} />
      </td>
      <td className={`${cell} ${short(row.peak > target)}`}>{units.number(row.peak, "nitrate")}</td>
      <td className={cell}>{units.number(row.mean, "nitrate")}</td>
      <td className={cell}>{units.number(row.change_l_wk, "volume_per_week")}</td>
      <td className={cell}>{units.number(row.work_min, "minutes")}</td>
      <td className={`${cell} ${short((row.shock_frac ?? 0) > 1)}`}>
        {row.shock_frac == null ? "none" : units.text(row.shock_frac, "share")}
      </td>
      <td className={cell}>{units.text(row.age_d, "days")}</td>
      {read && <td className={cell}>{row.settles_d == null ? "" : units.text(row.settles_d, "days")}</td>}
    </tr>
  );
}
