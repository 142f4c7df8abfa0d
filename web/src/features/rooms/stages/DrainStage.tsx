import { NumberField, SwitchField } from "@/ui/editing/fields";
import { Fields } from "@/ui/fields/Row";
import { Figures } from "@/ui/root/Figures";

/** The way out of the room. */
export function DrainStage() {
  return (
    <>
      <Figures
        keys={[
          "ordinary_lph",
          "worst_drain_lph",
          "collector_half_lph",
          "collector_most_lph",
          "outlet_lph",
          "floor_drain_lph",
          "flood_min",
        ]}
      />
      <Fields legend="Outlets and collector">
        <NumberField path="drain.outlet_mm" />
        <NumberField path="drain.outlet_head_mm" />
        <NumberField path="drain.collector_mm" />
        <NumberField path="drain.collector_fall_frac" />
        <NumberField path="drain.hose_lph" />
      </Fields>
      <Fields legend="On the floor">
        <NumberField path="drain.floor_l_s" />
        <NumberField path="drain.bund_l" />
        <SwitchField path="drain.leak_sensor" />
        <NumberField path="drain.sensor_l" />
      </Fields>
    </>
  );
}
