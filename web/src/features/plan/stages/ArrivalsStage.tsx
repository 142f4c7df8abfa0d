import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { useUnits } from "@/ui/units";
import { Checks } from "../Checks";
import { DripTimer } from "../DripTimer";
import { usePlan, useSheet } from "../context";
import { Fields } from "@/ui/fields/Row";
import { NumberField, SwitchField, TextField } from "@/ui/editing/fields";
import { Figures } from "@/ui/root/Figures";
import { JoinOrder } from "./JoinOrder";
import { Adding, Remove, useRows } from "@/ui/editing/rows";

const CARD = [
  "floating_min",
  "bag_ammonia_mg_l",
  "sealed_unionised_mg_l",
  "opened_ph",
  "opened_unionised_mg_l",
  "dripped_frac",
  "wanted_min",
  "wanted_drops",
  "bag_gap_frac",
  "drip_rate",
  "bag_water_us_cm",
  "bag_ppt",
  "tub_move_d",
  "in_tub_d",
  "tub_mg_d",
  "tub_h",
  "tub_change_frac",
];

/** From the bag into the tank, and the weeks in a tub before. */
export function ArrivalsStage() {
  const { count, add, remove, full } = useRows("bags");
  return (
    <>
      <JoinOrder />
      {count === 0 && (
        <p className="mb-3 text-quiet">
          An arrival’s card says whether to drip or to net across, how long, and what its tub needs.
        </p>
      )}
      {Array.from({ length: count }, (_, i) => (
        <Card key={i} index={i} remove={() => remove(i)} />
      ))}
      <div className="mb-6">
        <Adding to="bags" full={full}>
          <Button onClick={() => add()}>Add an arrival</Button>
        </Adding>
      </div>
      <Checks stage="arrivals" />
      <Fields legend="Quarantine">
        <NumberField path="quarantine.tub_count" />
        <NumberField path="quarantine.tub_l" />
        <NumberField path="quarantine.wait_weeks" />
        <NumberField path="quarantine.tub_media_m2" />
        <SwitchField path="quarantine.copper_used" />
      </Fields>
      <TextField path="quarantine.treatment_notes" />
      <Order />
      {count > 0 && <Figures keys={["tub_taken_mg_d", "fullest_tub_frac", "through_weeks"]} />}
    </>
  );
}

/** One arrival: what to do with its bag, the timer for it, and what it is reckoned from. */
function Card({ index, remove }: { index: number; remove: () => void }) {
  const name = usePlan((plan) => plan.bags?.[index]?.bag_name) ?? "";
  const told = useSheet((sheet) => sheet.bags[index]);
  const path = (field: string) => `bags.${index}.${field}`;
  return (
    <section aria-label={`Arrival ${index + 1}`} className="relative mb-6 border-t border-line pt-3">
      <Remove label={`Take out ${name}`} run={remove} className="absolute top-1 right-0" />
      {told && (
        <p className="mb-3 pr-11 text-lg">
          <Says sentence={told} />
        </p>
      )}
      <DripTimer index={index} />
      <TextField oneLine path={path("bag_name")} />
      <Fields legend="The bag">
        <NumberField path={path("bagged_l")} />
        <NumberField path={path("bag_mass_g")} />
        <NumberField path={path("bag_number")} />
        <NumberField path={path("bag_protein_frac")} />
        <NumberField path={path("bag_h")} />
        <SwitchField path={path("bag_fasted")} />
        <NumberField path={path("bag_c")} />
        <NumberField path={path("bag_kh_dkh")} />
        <NumberField path={path("bag_ph")} />
        <NumberField path={path("bag_us_cm")} />
        <NumberField path={path("bag_salinity_ppt")} />
      </Fields>
      <Fields legend="The drip">
        <NumberField path={path("drops_per_s")} />
        <NumberField path={path("drip_min")} />
        <NumberField path={path("drip_frac")} />
      </Fields>
      <Figures keys={CARD.map(path)} />
    </section>
  );
}

/** Who waits in which tub from when to when; a newcomer starts the wait of its tub anew. */
function Order() {
  const batches = useSheet((sheet) => sheet.batches);
  const units = useUnits();
  return (
    <ol aria-label="Order of arrivals" className="mb-5 text-sm">
      {batches.map((row, i) => (
        <li key={i} className="flex justify-between border-b border-line/70 py-1">
          <span>
            {row.name}, tub {row.tub}
          </span>
          <span className="num">
            {row.enters === 0 ? "now" : `week ${units.number(row.enters, "weeks")}`} to week{" "}
            {units.number(row.leaves, "weeks")}
          </span>
        </li>
      ))}
    </ol>
  );
}
