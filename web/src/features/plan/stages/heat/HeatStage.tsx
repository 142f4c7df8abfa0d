import { Fields } from "@/ui/fields/Row";
import { Says } from "@/ui/figures/Says";
import { Checks } from "../../Checks";
import { usePlan, usePlanInUse, useSheet } from "../../context";
import { ChoiceField, NumberField, SwitchField } from "@/ui/editing/fields";
import { Figures } from "@/ui/root/Figures";
import { FailureChart } from "./FailureChart";
import { HeatChart } from "./HeatChart";
import { LightFields } from "./LightFields";
import { Room } from "./Room";

export function HeatStage() {
  const heat = usePlan((plan) => plan.heat);
  const air = usePlan((plan) => plan.air);
  const { openFigure } = usePlanInUse();
  const outage = useSheet((sheet) => sheet.outage);
  return (
    <>
      <Room />
      <Fields legend="The tank">
        <SwitchField path="heat.heated" />
        {heat.heated && <NumberField path="heat.target_c" />}
        <ChoiceField path="heat.lid" />
        <ChoiceField path="heat.hot_day_lid" />
        <NumberField path="heat.chiller_w" />
        <SwitchField path="heat.fan_fitted" />
        {heat.fan_fitted && (
          <>
            <NumberField path="heat.fan_m_s" />
            <NumberField path="heat.fan_draws_w" />
          </>
        )}
        {!heat.heated && (heat.chiller_w > 0 || heat.fan_fitted) && <NumberField path="heat.target_c" />}
        <NumberField path="heat.base_foam_mm" />
        <NumberField path="heat.side_foam_mm" />
        <NumberField path="heat.foam_frac" />
        <SwitchField path="heat.against_wall" />
        <NumberField path="water.source_c" />
      </Fields>
      {heat.heated && (
        <Fields legend="Heaters: left empty, Loquen plans them">
          <NumberField path="heat.fitted_heaters" placeholder="plan" />
          <NumberField path="heat.fitted_w" placeholder="plan" />
          <SwitchField path="heat.cut_out" />
          <ChoiceField path="heat.heaters_in" />
        </Fields>
      )}
      <LightFields />
      <Fields legend="Mains and money">
        <NumberField path="heat.mains_v" />
        <NumberField path="heat.circuit_a" />
        <NumberField path="heat.circuit_other_w" />
        <NumberField path="heat.price_per_kwh" />
      </Fields>
      <Fields legend="Air">
        <ChoiceField path="air.surface_movement" />
        <NumberField path="air.fall_cm" />
        <NumberField path="air.stones_lph" />
        <NumberField path="air.stones_cm" />
        <NumberField path="air.outlets" />
        {(air?.outlets ?? 0) > 0 && (
          <>
            <NumberField path="air.outlet_lph" />
            <NumberField path="air.outlet_cm" />
            <NumberField path="air.air_pump_lph" />
            <NumberField path="air.air_pump_kpa" />
          </>
        )}
        <NumberField path="air.altitude_m" />
      </Fields>
      <p className="-mt-2 mb-5">
        <Says sentence={outage} open={openFigure} />
      </p>
      <Checks stage="heat" />
      <HeatChart />
      <FailureChart />
      <Figures
        keys={[
          "loss_cold_w",
          "change_heat_w",
          "equipment_low_w",
          "heater_need_w",
          "heater_count",
          "heater_each_w",
          "rule_of_practice_w",
          "one_dead_c",
          "stuck_on_c",
          "summer_c",
          "cold_in_h",
          "hot_in_h",
          "chiller_need_w",
          "chilling_kwh",
          "meshed_c",
          "uncooled_c",
          "fanned_w",
          "sticky_c",
          "fan_kwh",
          "fan_w",
          "fan_l_d",
          "dark_h",
          "circuit_w",
          "circuit_most_w",
          "evaporation_l_d",
          "evaporation_most_l_d",
          "heating_kwh",
          "equipment_kwh",
          "poured_kwh",
          "electricity_money",
          "saturation_oxygen_mg_l",
          "night_oxygen_mg_h",
          "whole_transfer_l_h",
          "dawn_oxygen_mg_l",
          "hottest_c",
          "hot_night_oxygen_mg_h",
          "hot_dawn_oxygen_mg_l",
          "floor_oxygen_mg_l",
          "outage_h",
        ]}
      />
    </>
  );
}
