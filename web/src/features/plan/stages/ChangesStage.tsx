import { Button } from "@/ui/controls";
import { useUnits } from "@/ui/units";
import { Checks } from "../Checks";
import { NitrateChart } from "../charts/NitrateChart";
import { usePlan, usePlanInUse, useSheet } from "../context";
import { ChoiceField, Fields, NumberField } from "../fields";
import { Figures } from "../Figures";

const WEEK = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"] as const;

export function ChangesStage() {
  const { changes, water } = usePlan();
  const treated = water.disinfectant !== "none";
  return (
    <>
      <NitrateChart />
      <Fields legend="The regime">
        <ChoiceField path="changes.regime" />
        <NumberField path="changes.change_frac" />
        {changes.regime === "every" ? <NumberField path="changes.every_d" /> : <Weekdays />}
        <NumberField path="changes.target_nitrate_mg_l" />
      </Fields>
      <Least />
      <Checks stage="changes" />
      <Fields legend="The water">
        <NumberField path="water.source_nitrate_mg_l" />
        <NumberField path="water.source_kh_dkh" />
        <NumberField path="water.source_us_cm" />
        <NumberField path="water.source_c" />
        <ChoiceField path="water.topped_up" />
        <NumberField path="water.tank_us_cm" placeholder="settled" />
        <NumberField path="water.tank_ph" />
        <NumberField path="water.tank_gh_dgh" />
        <ChoiceField path="water.salinity_by" />
        {water.salinity_by === "ppt" ? (
          <NumberField path="water.salinity_ppt" />
        ) : (
          <>
            <NumberField path="water.gravity_sg" />
            <NumberField path="water.hydrometer_c" />
          </>
        )}
      </Fields>
      <Fields legend="Disinfectant in it">
        <ChoiceField path="water.disinfectant" />
        {treated && (
          <>
            <NumberField path="water.disinfectant_mg_l" />
            <ChoiceField path="water.treatment" />
            <NumberField path="water.conditioner_ml" />
            {water.disinfectant === "chloramine" && <NumberField path="water.chloramine_factor" />}
          </>
        )}
      </Fields>
      {treated && (
        <Figures keys={["change_l", "dosed_l", "dose_ml", "thiosulfate_g", "freed_ammonia_mg_l"]} />
      )}
      <Fields legend="The work">
        <NumberField path="changes.hose_l_min" />
        <NumberField path="changes.setup_min" />
      </Fields>
      <Figures
        keys={[
          "made_nitrate_mg_l_d",
          "plants_mg_d",
          "rise_nitrate_mg_l_d",
          "standing_peak_d",
          "peak_nitrate_mg_l",
          "trough_nitrate_mg_l",
          "change_l_wk",
          "work_min",
          "used_dkh_d",
          "settled_kh_dkh",
          "kh_lasts_d",
          "settled_us_cm",
          "step_k",
          "step_solids_frac",
          "step_dkh",
          "shock_frac",
        ]}
      />
    </>
  );
}

function Weekdays() {
  const { changes } = usePlan();
  const { session } = usePlanInUse();
  const chosen: readonly string[] = changes.weekdays ?? [];
  const turn = (day: string) => {
    const days = WEEK.filter((other) => (other === day ? !chosen.includes(day) : chosen.includes(other)));
    session.edit({ "changes.weekdays": days });
  };
  return (
    <div role="group" aria-label="Days of change" className="flex items-center border-b border-line/70 py-1">
      {WEEK.map((day) => (
        <button
          key={day}
          type="button"
          aria-pressed={chosen.includes(day)}
          onClick={() => turn(day)}
          className="min-h-8 flex-1 rounded-sm border border-transparent text-sm text-quiet hover:border-line aria-pressed:bg-edge aria-pressed:font-semibold aria-pressed:text-ground pointer-coarse:min-h-11"
        >
          {day}
        </button>
      ))}
    </div>
  );
}

/** The regime of least work that holds the limit, and taking it over. */
function Least() {
  const { least_regime: least } = useSheet();
  const { session } = usePlanInUse();
  const units = useUnits();
  if (!least)
    return (
      <p className="mb-5 text-short">
        No regime holds this limit with this water: mend the source, the feed or the plants first.
      </p>
    );
  const use = () =>
    session.edit({
      "changes.regime": "weekdays",
      "changes.weekdays": least.weekdays,
      "changes.change_frac": least.change_frac,
    });
  return (
    <p className="mb-5">
      Least work that holds:{" "}
      <b className="font-semibold">
        {units.text(least.change_frac, "share")} on {least.weekdays.join(", ")}
      </b>
      , {units.text(least.change_l_wk, "volume_per_week")}, {units.text(least.work_min, "minutes")} a week,
      peak {units.text(least.peak_nitrate_mg_l, "nitrate")}.{" "}
      <Button look="word" onClick={use} aria-label="Use the least regime">
        use
      </Button>
    </p>
  );
}
