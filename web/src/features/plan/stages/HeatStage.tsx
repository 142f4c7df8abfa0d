import { Checks } from "../Checks";
import { Says } from "@/ui/Says";
import { FaultOf } from "../FaultSays";
import { usePlan, usePlanInUse, useSheet } from "../context";
import { ChoiceField, Fields, NumberField, Row, SwitchField } from "../fields";
import { Figures } from "../Figures";
import { Switch } from "@/ui/controls";
import { FailureChart } from "../charts/FailureChart";
import { HeatChart } from "../charts/HeatChart";

const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];

export function HeatStage() {
  const heat = usePlan((plan) => plan.heat);
  const light = usePlan((plan) => plan.light);
  const air = usePlan((plan) => plan.air);
  const { session, openFigure } = usePlanInUse();
  const outage = useSheet((sheet) => sheet.outage);
  const months = heat.room_months_c;
  const year = (on: boolean) =>
    session.edit({ "heat.room_months_c": on ? MONTHS.map(() => heat.room_mean_c) : null });
  return (
    <>
      <Fields legend="The room">
        <NumberField path="heat.room_cold_c" />
        <NumberField path="heat.room_warm_c" />
        <NumberField path="heat.room_mean_c" />
        <NumberField path="heat.humidity_frac" />
        <Row label="Room by month">
          <Switch label="Room by month" on={Boolean(months)} onChange={year} />
        </Row>
      </Fields>
      {months && (
        <fieldset className="mb-5">
          <legend className="mb-1 text-sm font-semibold">Mean of each month</legend>
          <div className="grid grid-cols-3 gap-2 md:grid-cols-6">
            {MONTHS.map((month, i) => (
              <div key={month} className="text-sm text-quiet">
                {month}
                <NumberField bare path={`heat.room_months_c.${i}`} label={`Room in ${month}`} />
              </div>
            ))}
          </div>
          <FaultOf path="heat.room_months_c" />
        </fieldset>
      )}
      <Fields legend="The tank">
        <SwitchField path="heat.heated" />
        {heat.heated && <NumberField path="heat.target_c" />}
        <ChoiceField path="heat.lid" />
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
      <Fields legend="Mains and money">
        <NumberField path="heat.mains_v" />
        <NumberField path="heat.circuit_a" />
        <NumberField path="heat.circuit_other_w" />
        <NumberField path="heat.price_per_kwh" />
        <NumberField path="heat.fan_m_s" />
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
          "chiller_w",
          "fan_w",
          "fan_l_d",
          "dark_h",
          "circuit_w",
          "circuit_most_w",
          "evaporation_l_d",
          "heating_kwh",
          "equipment_kwh",
          "electricity_money",
          "saturation_oxygen_mg_l",
          "night_oxygen_mg_h",
          "whole_transfer_l_h",
          "dawn_oxygen_mg_l",
          "floor_oxygen_mg_l",
          "outage_h",
        ]}
      />
    </>
  );
}
