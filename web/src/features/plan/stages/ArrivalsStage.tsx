import { Checks } from "../Checks";
import { DripTimer } from "../DripTimer";
import { useSheet } from "../context";
import { Fields, NumberField, SwitchField, TextField } from "../fields";
import { Figures } from "../Figures";
import { useUnits } from "@/ui/units";

/** From the bag into the tank, and the weeks in a tub before. */
export function ArrivalsStage() {
  return (
    <>
      <DripTimer />
      <Fields legend="The bag">
        <SwitchField path="arrival.expected" />
        <NumberField path="arrival.bagged_l" />
        <NumberField path="arrival.bag_mass_g" />
        <NumberField path="arrival.bag_h" />
        <SwitchField path="arrival.bag_fasted" />
        <NumberField path="arrival.bag_c" />
        <NumberField path="arrival.bag_kh_dkh" />
        <NumberField path="arrival.bag_ph" />
        <NumberField path="arrival.bag_us_cm" />
      </Fields>
      <Fields legend="The drip">
        <NumberField path="arrival.drops_per_s" />
        <NumberField path="arrival.drip_min" />
        <NumberField path="arrival.drip_frac" />
      </Fields>
      <Checks stage="arrivals" />
      <Figures
        keys={[
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
          "tub_move_d",
        ]}
      />
      <Fields legend="Quarantine">
        <NumberField path="arrival.batches" />
        <NumberField path="arrival.tub_count" />
        <NumberField path="arrival.tub_l" />
        <NumberField path="arrival.wait_weeks" />
        <NumberField path="arrival.tub_mass_g" />
        <NumberField path="arrival.tub_media_m2" />
        <SwitchField path="arrival.copper_used" />
      </Fields>
      <TextField path="arrival.treatment_notes" />
      <Order />
      <Figures keys={["tub_mg_d", "tub_h", "tub_change_frac", "through_weeks"]} />
    </>
  );
}

/** Who waits in which tub from when to when; a newcomer starts the wait of its tub anew. */
function Order() {
  const { batches } = useSheet();
  const units = useUnits();
  return (
    <ol aria-label="Order of arrivals" className="mb-5 border-t border-line text-sm">
      {batches.map((row) => (
        <li key={row.batch} className="flex justify-between border-b border-line/70 py-1">
          <span>
            arrival {row.batch}, tub {row.tub}
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
