import { Button } from "@/ui/controls";
import { useUnits } from "@/ui/units";
import { Checks } from "../../Checks";
import { NitrateChart } from "./NitrateChart";
import { usePlan, usePlanInUse, useSheet } from "../../context";
import { Fields } from "@/ui/fields/Row";
import { ChoiceField, NumberField } from "@/ui/editing/fields";
import { Figures } from "@/ui/root/Figures";
import { RegimeTable } from "./RegimeTable";

const WEEK = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"] as const;

export function ChangesStage() {
  const changes = usePlan((plan) => plan.changes);
  return (
    <>
      <NitrateChart />
      <Fields legend="The regime">
        <ChoiceField path="changes.regime" />
        {changes.regime === "drip" ? (
          <NumberField path="changes.drip_l_d" />
        ) : (
          <NumberField path="changes.change_frac" />
        )}
        {changes.regime === "weekdays" && <Weekdays path="changes.weekdays" label="Days of change" />}
        {changes.regime === "pulses" && <Weekdays path="changes.pulse_days" label="Days of pulses" />}
        {changes.regime === "every" && <NumberField path="changes.every_d" />}
        {changes.regime === "trigger" && <NumberField path="changes.shortest_gap_d" />}
        {changes.regime === "pulses" && <NumberField path="changes.pulses_d" />}
        {(changes.regime === "pulses" || changes.regime === "drip") && (
          <NumberField path="changes.short_cut_frac" />
        )}
        <NumberField path="changes.target_nitrate_mg_l" />
        <NumberField path="changes.read_nitrate_mg_l" placeholder="none" />
      </Fields>
      <Least />
      <RegimeTable />
      <Checks stage="changes" />
      <Fields legend="The work">
        <NumberField path="changes.hose_l_min" />
        <NumberField path="changes.setup_min" />
        <NumberField path="changes.side_drip_l_d" />
        <NumberField path="changes.away_d" />
        <Weekdays path="changes.there" label="Days you are there" />
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
          "missed_nitrate_mg_l",
          "away_nitrate_mg_l",
          "swapped_frac",
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

function Weekdays({
  path,
  label,
}: {
  path: "changes.weekdays" | "changes.there" | "changes.pulse_days";
  label: string;
}) {
  const changes = usePlan((plan) => plan.changes);
  const { session } = usePlanInUse();
  const chosen: readonly string[] =
    changes[path.slice("changes.".length) as "weekdays" | "there" | "pulse_days"] ?? [];
  const turn = (day: string) => {
    const days = WEEK.filter((other) => (other === day ? !chosen.includes(day) : chosen.includes(other)));
    session.edit({ [path]: days });
  };
  return (
    <div role="group" aria-label={label} className="flex items-center border-b border-line/70 py-1">
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
  const least = useSheet((sheet) => sheet.least_regime);
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
