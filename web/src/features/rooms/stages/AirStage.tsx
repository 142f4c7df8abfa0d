import { NumberField } from "@/ui/editing/fields";
import { Fields } from "@/ui/fields/Row";
import { Figures } from "@/ui/root/Figures";

/** Air from one blower, damp in the room, electricity of everything in it. */
export function AirStage() {
  return (
    <>
      <Figures
        keys={[
          "wanted_blower_lph",
          "wanted_blower_kpa",
          "air_main_kpa",
          "air_branch_kpa",
          "room_evaporation_l_d",
          "vent_m3_h",
          "room_year_kwh",
        ]}
      />
      <Fields legend="Air to the tanks">
        <NumberField path="blower.air_outlets" />
        <NumberField path="blower.air_lph" />
        <NumberField path="blower.deepest_air_cm" />
        <NumberField path="blower.air_main_m" />
        <NumberField path="blower.air_main_mm" />
        <NumberField path="blower.air_branch_mm" />
        <NumberField path="blower.blower_lph" />
        <NumberField path="blower.blower_kpa" />
        <NumberField path="blower.blower_w" />
      </Fields>
      <Fields legend="Air in the room">
        <NumberField path="blower.air_c" />
        <NumberField path="blower.humid_frac" />
        <NumberField path="blower.outside_c" />
        <NumberField path="blower.outside_humid_frac" />
        <NumberField path="blower.fan_m3_h" />
      </Fields>
    </>
  );
}
