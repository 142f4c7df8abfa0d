import { useQuery } from "@tanstack/react-query";
import type { LineKept } from "@/api/client";
import { libraryQuery } from "@/api/queries";
import { ChoiceField, NumberField, SwitchField } from "@/ui/editing/fields";
import { Fields, Row } from "@/ui/fields/Row";
import { SpeciesPicker } from "@/ui/fields/SpeciesPicker";
import { useUnits } from "@/ui/units";
import { useVenture, useVentureInUse, useVentureSheet } from "../context";
import { Figures } from "@/ui/root/Figures";
import { TankField } from "../TankField";

/** Who breeds, in which tank, bought how, and what that does to the line. */
export function ColonyStage() {
  const bought = useVenture(({ colony }) => colony.bought);
  return (
    <>
      <Fields legend="Kind and colony">
        <Kind />
        <ChoiceField path="colony.purpose" />
        <NumberField path="colony.females" />
        <NumberField path="colony.males" />
        <SwitchField path="colony.spare_male" />
        <NumberField path="colony.female_cm" placeholder="adult" />
      </Fields>
      <Fields legend="Its tank">
        <TankField path="stand.system" none="choose one" />
        <TankField path="stand.colony_system" none="the same sort" />
        <NumberField path="stand.colony_tanks" />
        <NumberField path="stand.all_tanks" />
      </Fields>
      <Fields legend="Bought">
        <ChoiceField path="colony.bought" />
        <NumberField path="colony.grown_money" />
        {bought === "young" && (
          <>
            <NumberField path="colony.young_money" />
            <NumberField path="colony.lines" />
            <NumberField path="colony.chance_frac" />
            <NumberField path="colony.reared_frac" />
          </>
        )}
        <NumberField path="colony.male_frac" />
        <NumberField path="colony.breeds_weeks" />
      </Fields>
      {bought === "young" && <Bought />}
      <Figures
        keys={[
          "colony_money",
          "by_rule_cm",
          "colony_balance_frac",
          "effective_count",
          "effective_low_count",
          "lost_least_frac",
          "lost_most_frac",
        ]}
      />
      <Lines />
    </>
  );
}

function Kind() {
  const { session } = useVentureInUse();
  const key = useVenture(({ colony }) => colony.species);
  const species = useQuery(libraryQuery).data?.species ?? [];
  return (
    <div className="md:col-span-2">
      <Row label="Animal">
        <b className="text-right">{species.find((row) => row.key === key)?.common ?? key}</b>
      </Row>
      <SpeciesPicker label="Another animal" pick={(kind) => session.edit({ "colony.species": kind.key })} />
    </div>
  );
}

/** How many young of each line, when they tell their sex, and what becomes of the others. */
function Bought() {
  const units = useUnits();
  const each = useVentureSheet((sheet) => sheet.buy_from_each) ?? [];
  const chance = useVentureSheet(({ figures }) => figures.chance_reached?.value);
  const sexed = useVentureSheet(({ figures }) => figures.sexed_d?.value);
  const over = useVentureSheet(({ figures }) => figures.young_over?.value);
  const lines = useVenture(({ colony }) => colony.lines) ?? 1;
  if (each.length === 0) return null;
  const most = Math.max(...each);
  const least = Math.min(...each);
  return (
    <p className="mb-5">
      {Number(lines) > 1
        ? `${most === least ? most : `${least} to ${most}`} of each of ${lines} lines`
        : `All ${most} of one line`}
      {chance != null && <>: with {units.text(chance, "share")} enough of both sexes grow up</>}.
      {sexed != null && <> They can be sexed after {units.text(Math.round(sexed), "days")}.</>}
      {over != null && over >= 1 && (
        <>
          {" "}
          About {Math.round(over)} are then over: sell or give them on with their line written down, and keep
          the spare male from them.
        </>
      )}
    </p>
  );
}

/** The lines of this kind in the register. */
function Lines() {
  const rows = useVentureSheet((sheet) => sheet.lines) ?? [];
  if (rows.length === 0) return null;
  return (
    <section aria-label="Lines in the register" className="mb-5">
      <h3 className="mb-1 text-sm font-semibold">Lines in the register</h3>
      <ul>
        {rows.map((row) => (
          <li key={row.line} className="border-b border-line/70 py-1">
            <Line row={row} />
          </li>
        ))}
      </ul>
    </section>
  );
}

function Line({ row }: { row: LineKept }) {
  const units = useUnits();
  const whole = (value: number) => units.number(value, "count");
  return (
    <>
      <b>{row.line || "No line written down"}</b>: {row.alive} alive, generation {row.generation} bred here.{" "}
      {row.effective != null && row.effective_low != null
        ? `Effective number ${whole(row.effective_low)} to ${whole(row.effective)}. `
        : "Sexes are not written down: no effective number. "}
      {row.generation > 0 &&
        `Since the founders ${units.text(row.lost_least_frac, "share")} to ${units.text(row.lost_most_frac, "share")} of its breadth is gone: a guide.`}
    </>
  );
}
