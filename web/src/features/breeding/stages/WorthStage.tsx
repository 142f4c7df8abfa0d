import { longDay } from "@/lib/shown/days";
import { FigureButton, Measure } from "@/ui/figures/Says";
import { NumberField, TextField } from "@/ui/editing/fields";
import { Fields } from "@/ui/fields/Row";
import { useUnits } from "@/ui/units";
import { Swings } from "../charts/Swings";
import { useVenture, useVentureInUse, useVentureSheet } from "../context";
import { Figures } from "@/ui/root/Figures";

/** What it brings and costs, how sure that is, and what moves it. */
export function WorthStage() {
  const line = useVenture(({ colony }) => colony.purpose === "line");
  return (
    <>
      <Range />
      <Week />
      <Swings />
      <Figures
        keys={[
          "tank_margin_money",
          "unpaid_margin_money",
          "hour_margin_money",
          "worked_h",
          ...(line ? ["line_year_money"] : ["break_even_frac", "break_even_money"]),
          "laid_out_money",
          "all_water_l_wk",
          "all_kwh",
          "young_feed_g_d",
          "colony_feed_g_d",
        ]}
      />
      <Fields legend="What things cost">
        <NumberField path="costs.hour_money" />
        <NumberField path="costs.tank_min" />
        <NumberField path="costs.sale_min" />
        <NumberField path="costs.feed_kg_money" />
        <NumberField path="costs.kwh_money" placeholder="the plan's" />
        <NumberField path="costs.water_money" />
        <NumberField path="costs.commission_frac" />
        <NumberField path="costs.other_money" />
        <NumberField path="costs.set_up_money" />
      </Fields>
      <Fields legend="How far off they may be: parts of what is likely">
        {DOUBTS.map((name) => (
          <NumberField key={name} path={`doubts.${name}`} placeholder="by practice" />
        ))}
      </Fields>
      <TextField path="stand.notes" />
    </>
  );
}

const DOUBTS = ["broods", "lives", "pace", "price", "sells", "work"].flatMap((name) => [
  `${name}_low`,
  `${name}_high`,
]);

/** The outer range, said as one, and the day of the first sale. */
function Range() {
  const units = useUnits();
  const low = useVentureSheet((sheet) => sheet.low_money);
  const high = useVentureSheet((sheet) => sheet.high_money);
  const first = useVentureSheet((sheet) => sheet.first_sale);
  const soon = useVentureSheet((sheet) => sheet.high_first_sale);
  const late = useVentureSheet((sheet) => sheet.low_first_sale);
  const line = useVenture(({ colony }) => colony.purpose === "line");
  if (low == null || high == null) return null;
  return (
    <p className="mb-4">
      With all that is uncertain at its bad end together it is{" "}
      <b className="num">{units.text(low, "money")}</b> a tank and week, at its good end{" "}
      <b className="num">{units.text(high, "money")}</b>: an outer range, wider than what will come.
      {!line && first && (
        <>
          {" "}
          The first sale is about {longDay(first)} {first.slice(0, 4)}
          {soon && late && soon !== late && `, between ${longDay(soon)} and ${longDay(late)}`}; until then it
          only costs.
        </>
      )}
    </p>
  );
}

/** A week's money, part by part, each on its own line. */
function Week() {
  const { openFigure } = useVentureInUse();
  const costs = useVentureSheet((sheet) => sheet.costs) ?? [];
  const earned = useVentureSheet(({ figures }) => figures.earned_money);
  const margin = useVentureSheet(({ figures }) => figures.margin_money);
  if (earned?.value == null || margin?.value == null) return null;
  const most = Math.max(earned.value, ...costs.map(({ money }) => money), 0.01);
  const rows = [
    { label: earned.label, figure: "earned_money", money: earned.value, cost: false },
    ...costs.map((part) => ({ ...part, cost: true })),
    { label: margin.label, figure: "margin_money", money: margin.value, cost: margin.value < 0 },
  ];
  return (
    <section aria-label="A steady week" className="mb-5">
      <h3 className="mb-1 text-sm font-semibold">A steady week</h3>
      <ul>
        {rows.map(({ label, figure, money, cost }) => (
          <li
            key={figure}
            className="grid grid-cols-[minmax(0,1fr)_120px_72px] items-center gap-3 border-b border-line/70 py-1"
          >
            <span className="text-quiet">{label}</span>
            <span aria-hidden="true" className="h-2.5">
              <span
                className={`block h-full ${cost ? "bg-short-fill" : "bg-edge"}`}
                style={{ width: `${(Math.min(most, Math.abs(money)) / most) * 100}%` }}
              />
            </span>
            <span className="text-right">
              <FigureButton figure={figure} open={openFigure}>
                <Measure value={money} kind="money" />
              </FigureButton>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
