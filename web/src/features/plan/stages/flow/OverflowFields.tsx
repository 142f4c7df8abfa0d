import { Fields } from "@/ui/fields/Row";
import { usePlan } from "../../context";
import { ChoiceField, NumberField, SwitchField } from "@/ui/editing/fields";

/** How water leaves the display, by a weir box or by drilled holes. */
export function OverflowFields({ way }: { way: "weir" | "holes" }) {
  const throughHoles = usePlan((plan) => plan.flow?.way === "holes" || plan.flow?.box_inlet === "holes");
  const airBreak = usePlan((plan) => plan.flow?.air_break);
  return (
    <Fields legend="The overflow">
      <ChoiceField path="flow.way" />
      {way === "weir" ? (
        <>
          <ChoiceField path="flow.box_inlet" />
          {!throughHoles && (
            <>
              <NumberField path="flow.weir_cm" />
              <NumberField path="flow.teeth_frac" />
            </>
          )}
          <NumberField path="flow.box_length_cm" />
          <NumberField path="flow.box_width_cm" />
          <NumberField path="flow.box_lip_cm" />
        </>
      ) : null}
      {throughHoles && (
        <>
          <NumberField path="flow.hole_mm" />
          <NumberField path="flow.hole_count" />
          <NumberField path="flow.hole_rows" />
          <NumberField path="flow.row_gap_cm" />
          <NumberField path="flow.clogged_frac" />
          {way === "holes" && <NumberField path="flow.hole_edge_cm" />}
        </>
      )}
      <ChoiceField path="flow.drain_kind" />
      <ChoiceField path="flow.drain_pipe" />
      <NumberField path="flow.drain_count" />
      <NumberField path="flow.drain_length_m" />
      <NumberField path="flow.drain_elbows" />
      <ChoiceField path="flow.emergency_pipe" />
      <SwitchField path="flow.air_break" />
      {airBreak && <NumberField path="flow.air_break_cm" />}
    </Fields>
  );
}
