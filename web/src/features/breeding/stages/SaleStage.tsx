import { FigureNumber } from "@/ui/figures/FigureLine";
import { Button } from "@/ui/controls";
import { ChoiceField, NumberField, TextField } from "@/ui/editing/fields";
import { Adding, LINE, Remove, useRows, Worded } from "@/ui/editing/rows";
import { useUnits } from "@/ui/units";
import { useVentureInUse, useVentureSheet } from "../context";
import { Figures } from "@/ui/root/Figures";

/** Who takes the young: at a size, for a price, to so many buyers. */
export function SaleStage() {
  const rows = useRows("sales");
  return (
    <>
      <fieldset className="mb-5">
        <legend className="mb-1 text-sm font-semibold">Ways that they go</legend>
        {Array.from({ length: rows.count }, (_, i) => (
          <div key={i} className="mb-3 border-b border-line pb-2">
            <div className={LINE}>
              <TextField path={`sales.${i}.sale_name`} oneLine />
              <ChoiceField path={`sales.${i}.sex`} bare />
              <ChoiceField path={`sales.${i}.channel`} bare />
              <Remove label={`Take way ${i + 1} out`} run={() => rows.remove(i)} />
            </div>
            <div className={LINE}>
              <Worded words="of those">
                <NumberField path={`sales.${i}.part_frac`} bare />
              </Worded>
              <Worded words="at">
                <NumberField path={`sales.${i}.sale_cm`} bare />
              </Worded>
              <Worded words="for">
                <NumberField path={`sales.${i}.price_money`} bare />
              </Worded>
            </div>
            <div className={LINE}>
              <Worded words="coloured after">
                <NumberField path={`sales.${i}.colour_d`} bare />
              </Worded>
              <Worded words="buyers a week">
                <NumberField path={`sales.${i}.buyers_wk`} bare placeholder="any" />
              </Worded>
            </div>
            <div className={LINE}>
              <Worded words="find a buyer">
                <NumberField path={`sales.${i}.sells_frac`} bare />
              </Worded>
              <Worded words="arrive well">
                <NumberField path={`sales.${i}.ships_frac`} bare />
              </Worded>
              <Worded words="wait for one">
                <NumberField path={`sales.${i}.wait_d`} bare />
              </Worded>
            </div>
            <div className={LINE}>
              <Worded words="the rest stay">
                <NumberField path={`sales.${i}.kept_d`} bare />
              </Worded>
              <Worded words="and bring">
                <NumberField path={`sales.${i}.unsold_money`} bare />
              </Worded>
            </div>
            <Outcome at={i} />
          </div>
        ))}
        <Adding to="sales" full={rows.full}>
          <Button onClick={() => rows.add({ sale_name: "Another way", part_frac: 0, sale_cm: 3 })}>
            Another way
          </Button>
        </Adding>
      </fieldset>
      <OneWays />
      <Figures keys={["all_raised_per_wk", "all_sold_per_wk", "unplaced_frac", "first_sale_d"]} />
    </>
  );
}

const OUTCOME = [
  ["ready_d", "ready after"],
  ["raised_per_wk", "raised a week"],
  ["sold_per_wk", "sold"],
  ["unsold_per_wk", "unsold"],
  ["sold_money", "for"],
] as const;

/** What a way comes to. */
function Outcome({ at }: { at: number }) {
  const { openFigure } = useVentureInUse();
  const figures = useVentureSheet((sheet) => sheet.figures);
  const fills = figures?.[`sales.${at}.fills_weeks`];
  if (!figures) return null;
  return (
    <p className="mt-1 flex flex-wrap gap-x-4 text-sm">
      {OUTCOME.map(([name, words]) => {
        const figure = figures[`sales.${at}.${name}`];
        return (
          figure?.value != null && (
            <span key={name}>
              <span className="text-quiet">{words}</span> <FigureNumber figure={figure} open={openFigure} />
            </span>
          )
        );
      })}
      {fills?.value != null && fills.value < 26 && (
        <span>
          <span className="text-quiet">a tank is full of the unsold in</span>{" "}
          <FigureNumber figure={fills} open={openFigure} />
        </span>
      )}
    </p>
  );
}

/** Each way alone, on one scale: sizes and channels compared. */
function OneWays() {
  const units = useUnits();
  const rows = useVentureSheet((sheet) => sheet.one_ways) ?? [];
  if (rows.length < 2) return null;
  const best = Math.max(...rows.map((row) => row.tank_margin_money));
  return (
    <section aria-label="Each way alone" className="mb-5">
      <h3 className="mb-1 text-sm font-semibold">If all of a sex went one way: left for a tank and week</h3>
      <ul>
        {rows.map((row) => (
          <li key={row.sale} className="flex justify-between gap-3 border-b border-line/70 py-1">
            <span className={row.tank_margin_money === best ? "font-semibold" : "text-quiet"}>
              {row.name}, at {units.text(row.sale_cm, "length")}
            </span>
            <span className="num">{units.text(row.tank_margin_money, "money")}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
