import { usePlan } from "../../context";
import { Checks } from "../../Checks";
import { Fields } from "@/ui/fields/Row";
import { ChoiceField, NumberField, SwitchField } from "@/ui/editing/fields";
import { Figures } from "@/ui/root/Figures";
import { Floor } from "./Floor";
import { Land } from "./Land";
import { Plants } from "./Plants";

const ROUND = ["cylinder", "quarter_round", "hexagon"];
const LENGTHS: Record<string, string> = {
  cylinder: "Diameter",
  quarter_round: "Radius",
  hexagon: "Corner to corner",
};

export function TankStage() {
  const tank = usePlan((plan) => plan.tank);
  return (
    <>
      <Fields legend="The glass">
        <NumberField path="tank.tank_count" />
        <ChoiceField path="tank.shape" />
        <ChoiceField path="tank.measured" />
        <NumberField path="tank.tank_length_cm" label={LENGTHS[tank.shape]} />
        {!ROUND.includes(tank.shape) && <NumberField path="tank.tank_width_cm" />}
        <NumberField path="tank.tank_height_cm" />
        {tank.shape === "bow_front" && <NumberField path="tank.bow_cm" />}
        {tank.shape === "l_shape" && (
          <>
            <NumberField path="tank.notch_length_cm" />
            <NumberField path="tank.notch_width_cm" />
          </>
        )}
        <NumberField path="tank.pane_mm" />
        <ChoiceField path="tank.pane_material" />
        <ChoiceField path="tank.support" />
        <SwitchField path="tank.toughened" />
        <SwitchField path="tank.factory_built" />
        <ChoiceField path="tank.fill_by" />
        <NumberField path={tank.fill_by === "height" ? "tank.part_fill_cm" : "tank.freeboard_cm"} />
      </Fields>
      <Land />
      <Floor />
      <Plants />
      <Checks stage="tank" />
      <Figures
        keys={[
          "full_volume_l",
          "filled_volume_l",
          "bed_displaced_l",
          "rock_displaced_l",
          "real_volume_l",
          "water_height_cm",
          "footprint_m2",
          "bed_volume_l",
          "bed_deepest_cm",
          "bed_bags",
          "plants_mg_d",
          "shaded_frac",
          "total_mass_kg",
          "panes_kg",
          "floor_kpa",
          "pane_needed_mm",
          "pane_stock_mm",
          "pane_bulge_mm",
        ]}
      />
    </>
  );
}
