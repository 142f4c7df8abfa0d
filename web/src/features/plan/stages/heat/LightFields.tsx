import { Fields } from "@/ui/fields/Row";
import { usePlan } from "../../context";
import { NumberField, SwitchField } from "../../fields";
import { Figures } from "../../Figures";

/** Lamps over the tank, and the lamp that basking animals need. */
export function LightFields() {
  const light = usePlan((plan) => plan.light);
  return (
    <>
      <Fields legend="Light">
        <NumberField path="heat.light_w" />
        <NumberField path="heat.light_h" />
        <NumberField path="light.ramp_min" />
        <NumberField path="light.siesta_h" />
        <NumberField path="light.basking_c" placeholder="none" />
        <SwitchField path="light.uvb_fitted" />
        {light?.uvb_fitted && (
          <>
            <NumberField path="light.uvb_near_cm" />
            <NumberField path="light.uvb_near_uvi" label="Index at the nearer" />
            <NumberField path="light.uvb_far_cm" />
            <NumberField path="light.uvb_far_uvi" label="Index at the farther" />
            <NumberField path="light.uvb_wanted_uvi" />
            <NumberField path="light.uvb_cm" />
            <NumberField path="light.uvb_screen_frac" />
            <NumberField path="light.uvb_age_months" />
            <NumberField path="light.uvb_life_months" />
          </>
        )}
      </Fields>
      {light?.uvb_fitted && (
        <Figures keys={["given_uvi", "uvb_hang_cm", "uvb_due_months", "uvb_left_frac"]} />
      )}
    </>
  );
}
