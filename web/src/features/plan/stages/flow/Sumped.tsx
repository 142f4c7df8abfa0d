import { Says } from "@/ui/figures/Says";
import { Fields } from "@/ui/fields/Row";
import { Checks } from "../../Checks";
import { usePlan, usePlanInUse, useSheet } from "../../context";
import { ChoiceField, NumberField, SwitchField } from "@/ui/editing/fields";
import { Figures } from "@/ui/root/Figures";
import { FlowCases } from "./FlowCases";
import { OverflowFields } from "./OverflowFields";
import { PumpChart } from "./PumpChart";
import { PumpFields } from "./PumpFields";
import { BuiltFields, Chambers, ReturnRows, RunRows } from "./rows";
import { SumpQuestions } from "./SumpQuestions";

/** With a sump: the pump and its run, the overflow, the chambers. */
export function Sumped({ way }: { way: "weir" | "holes" }) {
  const curves = useSheet((sheet) => sheet.flow);
  const { openFigure } = usePlanInUse();
  const clarified = usePlan((plan) => plan.flow?.uv_fitted);
  return (
    <>
      {curves && <PumpChart flow={curves} />}
      <RunRows />
      <ReturnRows />
      <PumpFields />
      <Checks stage="flow" />
      <OverflowFields way={way} />
      {curves && <FlowCases flow={curves} />}
      <h3 className="mt-6 mb-1 text-xl font-semibold">Sump</h3>
      {curves && (
        <p className="mb-3 text-lg leading-snug">
          <Says sentence={curves.sump} open={openFigure} />
        </p>
      )}
      <SumpQuestions />
      <Chambers />
      <Fields legend="Its glass and stand">
        <NumberField path="sump.sump_length_cm" />
        <NumberField path="sump.sump_width_cm" />
        <NumberField path="sump.sump_height_cm" />
        <NumberField path="sump.sump_pane_mm" />
        <ChoiceField path="sump.sump_lid" />
        <NumberField path="sump.stand_cm" />
        <NumberField path="sump.stand_room_cm" />
        <NumberField path="sump.tallest_part_cm" />
      </Fields>
      <Fields legend="What stands in it">
        <NumberField path="sump.return_level_cm" />
        <NumberField path="sump.intake_cm" />
        <NumberField path="sump.topper_l" />
        <ChoiceField path="sump.sump_media" />
        <NumberField path="sump.media_fill_frac" />
      </Fields>
      <Fields legend="Ultraviolet clarifier">
        <SwitchField path="flow.uv_fitted" />
        {clarified && (
          <>
            <NumberField path="flow.uv_rated_mj" />
            <NumberField path="flow.uv_rated_lph" />
            <NumberField path="flow.uv_lph" />
            <NumberField path="flow.uv_wanted_mj" />
          </>
        )}
      </Fields>
      {clarified && <Figures keys={["uv_given_mj", "uv_most_lph"]} />}
      <BuiltFields />
      <Figures
        keys={[
          "lift_head_m",
          "rim_head_m",
          "run_loss_head_m",
          "turnover_per_h",
          "fastest_m_s",
          "overflow_head_mm",
          "crest_cm",
          "drain_lph",
          "emergency_lph",
          "sump_running_l",
          "sump_media_l",
          "sump_free_l",
          "clogged_drop_cm",
          "drain_down_l",
          "clogged_down_l",
          "power_off_cm",
          "liftable_l",
          "blocked_rise_mm",
          "dry_d",
          "trap_cm_s",
          "over_sump_cm",
        ]}
      />
    </>
  );
}
