import { Fields } from "@/ui/fields/Row";
import { ChoiceField, NumberField, SwitchField } from "@/ui/editing/fields";
import { Figures } from "@/ui/root/Figures";
import { usePlan, useSheet } from "../../context";

const DRY = ["platform", "box", "bank"];

/** The dry place of those who leave the water, and what they climb and rest on; only where any does. */
export function Land() {
  const kind = usePlan((plan) => plan.land.land_kind);
  const asked = useSheet(({ checks }) =>
    checks.some(({ key, state }) => (key === "land_suits" || key === "depth_suits") && state !== "unknown"),
  );
  if (!asked && !DRY.includes(kind)) return null;
  return (
    <>
      <Fields legend="Land, and the way out of the water">
        <ChoiceField path="land.land_kind" />
        {DRY.includes(kind) && (
          <>
            <NumberField path="land.land_count" />
            <NumberField path="land.land_length_cm" />
            <NumberField path="land.land_width_cm" />
            <NumberField path="land.land_above_cm" />
            {kind === "box" && <NumberField path="land.land_cover_cm" />}
            {kind !== "bank" && <SwitchField path="land.land_ramp" />}
          </>
        )}
        <NumberField path="land.foothold_cm" placeholder="untold" />
        <NumberField path="land.rest_cm" placeholder="none" />
        <SwitchField path="land.weak_swimmers" />
      </Fields>
      {DRY.includes(kind) && (
        <Figures
          keys={["land_m2", "land_frac", "place_wanted_cm", "head_room_cm", "bare_wall_cm", "swim_depth_cm"]}
        />
      )}
    </>
  );
}
