import { useState } from "react";
import { shortDay } from "@/lib/shown/days";
import { Says } from "@/ui/figures/Says";
import { Button } from "@/ui/controls";
import { ChoiceField, DateField, NumberField, SwitchField, TextField } from "@/ui/editing/fields";
import { Adding, LINE, Remove, useRows, Worded } from "@/ui/editing/rows";
import { Fields } from "@/ui/fields/Row";
import { useVenture, useVentureSheet } from "../context";
import { BroodDialog } from "../BroodDialog";
import { Figures } from "@/ui/root/Figures";

/** How the young come, where they grow, and how many tanks that fills. */
export function BroodsStage() {
  const raised = useVenture(({ broods }) => broods?.raised);
  const known = useVentureSheet((sheet) => sheet.known_broods);
  const hint = known ? "library" : "enter";
  return (
    <>
      <Fields legend="Broods">
        <NumberField path="broods.brood_size" placeholder={hint} />
        <NumberField path="broods.interval_d" placeholder={hint} />
        <NumberField path="broods.fertile_frac" />
        <NumberField path="broods.taken_month" placeholder="all" />
        <NumberField path="broods.most_of_batch" placeholder="all" />
        <NumberField path="broods.culled_frac" />
        <SwitchField path="broods.stripped" />
        <ChoiceField path="broods.raised" />
        {raised === "holding" && <NumberField path="broods.holding_d" />}
        <NumberField path="broods.move_cm" />
        <DateField path="stand.set_on" />
        <NumberField path="stand.settle_d" />
        <NumberField path="stand.stock_g_l" />
      </Fields>
      <NoteBrood />
      <Survival />
      <Figures
        keys={[
          "young_per_day",
          "raised_of_batch",
          "kept_per_day",
          "brood_young",
          "brood_interval_d",
          "moved_d",
          "pace_frac",
          "growth_per_year",
          "present",
          "little_present",
          "raising_mean",
          "by_balance",
          "by_weight",
          "tanks_needed",
          "tanks_peak",
          "tank_water_l_wk",
        ]}
      />
      <Fullest />
      <Free />
    </>
  );
}

/** Writing a brood down where it moves the forecast. */
function NoteBrood() {
  const [open, setOpen] = useState(false);
  const home = useVentureSheet((sheet) => sheet.home);
  if (!home) return null;
  return (
    <p className="mb-5">
      <Button onClick={() => setOpen(true)}>A brood was born</Button>{" "}
      <span className="text-sm text-quiet">From three in the register on they take the guess’s place.</span>
      {open && <BroodDialog close={() => setOpen(false)} />}
    </p>
  );
}

/** Stages of young life, and how many live through each. */
function Survival() {
  const rows = useRows("raising");
  return (
    <fieldset className="mb-5">
      <legend className="mb-1 text-sm font-semibold">Who lives</legend>
      {Array.from({ length: rows.count }, (_, i) => (
        <div key={i} className={LINE}>
          <TextField path={`raising.${i}.stage_name`} oneLine />
          <Worded words="for">
            <NumberField path={`raising.${i}.stage_d`} bare />
          </Worded>
          <Worded words="of them live">
            <NumberField path={`raising.${i}.lives_frac`} bare />
          </Worded>
          <Remove label={`Take stage ${i + 1} out`} run={() => rows.remove(i)} />
        </div>
      ))}
      <Adding to="raising" full={rows.full}>
        <Button onClick={() => rows.add()}>Another stage</Button>
      </Adding>
    </fieldset>
  );
}

/** What the tank's own sheet says of a grow-out tank at its fullest. */
function Fullest() {
  const told = useVentureSheet((sheet) => sheet.young_housed);
  if (!told) return null;
  return (
    <p className={`mb-4 border-l-3 pl-3 ${told.state === "short" ? "border-short" : "border-edge"}`}>
      {told.against.length === 0
        ? `Asked about ${told.count} growing young in one tank, its own sheet takes them${told.state === "tight" ? ", just" : ""}.`
        : `Asked about ${told.count} growing young in one tank, its own sheet refuses: `}
      {told.against[0] && <Says sentence={told.against[0]} />}
    </p>
  );
}

/** Which tank is free when. */
function Free() {
  const rows = useVentureSheet((sheet) => sheet.free) ?? [];
  if (rows.length === 0) return null;
  return (
    <section aria-label="Free tanks" className="mb-5">
      <h3 className="mb-1 text-sm font-semibold">Free next</h3>
      <ul className="grid gap-x-7 md:grid-cols-2">
        {rows.map((row) => (
          <li key={row.tank} className="flex justify-between gap-3 border-b border-line/70 py-1">
            <span className="text-quiet">{row.tank}</span>
            <span className="num text-right">
              {shortDay(row.free_on)}
              {row.until && ` to ${shortDay(row.until)}`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
