import { NumberField, SwitchField } from "@/ui/editing/fields";
import { Adding, LINE, Remove, useRows, Worded } from "@/ui/editing/rows";
import { Button } from "@/ui/controls";
import { Fields } from "@/ui/fields/Row";
import { DayChart } from "../charts/DayChart";
import { useRoomSheet } from "../context";
import { Figures } from "../Figures";

/** Hot water over the day: when each zone runs in winter and in summer, and the store under it. */
export function TimetableStage() {
  const seasons = useRoomSheet((sheet) => sheet.seasons) ?? [];
  const windows = useRows("windows");
  const household = useRows("household");
  return (
    <>
      {seasons.map((season) => (
        <figure key={season.name} className="mb-4">
          <figcaption className="mb-1 text-sm">
            <b className="capitalize">{season.name}</b>
            {season.table.feasible
              ? `: ${season.table.starts} starts, no two at once; the store refills between`
              : ": there is no such day"}
          </figcaption>
          <DayChart season={season} />
        </figure>
      ))}
      <Figures
        keys={[
          "winter_hot_frac",
          "winter_hot_l_d",
          "winter_recovery_lph",
          "usable_l",
          "least_store_l",
          "store_pulse_min",
          "run_step_k",
        ]}
      />
      <fieldset className="mb-5">
        <legend className="mb-1 text-sm font-semibold">Hours in which zones may run</legend>
        {Array.from({ length: windows.count }, (_, i) => (
          <div key={i} className={LINE}>
            <Worded words="from">
              <NumberField path={`windows.${i}.window_from_h`} bare />
            </Worded>
            <Worded words="to">
              <NumberField path={`windows.${i}.window_to_h`} bare />
            </Worded>
            <Remove label={`Take hours ${i + 1} out`} run={() => windows.remove(i)} />
          </div>
        ))}
        <Adding to="windows" full={windows.full}>
          <Button onClick={() => windows.add({ window_from_h: 10, window_to_h: 16 })}>More hours</Button>
        </Adding>
      </fieldset>
      <Fields legend="The hot store">
        <NumberField path="store.mixed_c" />
        <NumberField path="store.store_l" />
        <NumberField path="store.hot_c" />
        <NumberField path="store.hot_w" />
        <NumberField path="store.hot_yield" />
        <NumberField path="store.standing_w" />
        <NumberField path="store.usable_frac" />
        <NumberField path="store.reserve_l" />
        <NumberField path="supply.winter_c" />
        <NumberField path="supply.summer_c" />
        <SwitchField path="store.thermostatic" />
      </Fields>
      <Fields legend="Pulses">
        <NumberField path="pulses.gap_min" />
        <NumberField path="pulses.shortest_min" />
        <NumberField path="pulses.longest_min" placeholder="no limit" />
        <NumberField path="pulses.straight_frac" />
      </Fields>
      <fieldset className="mb-5">
        <legend className="mb-1 text-sm font-semibold">Hot water the house draws from it each day</legend>
        {Array.from({ length: household.count }, (_, i) => (
          <div key={i} className={LINE}>
            <Worded words="from">
              <NumberField path={`household.${i}.house_from_h`} bare />
            </Worded>
            <Worded words="to">
              <NumberField path={`household.${i}.house_to_h`} bare />
            </Worded>
            <NumberField path={`household.${i}.house_hot_l`} bare />
            <Remove label={`Take draw ${i + 1} out`} run={() => household.remove(i)} />
          </div>
        ))}
        <Adding to="household" full={household.full}>
          <Button onClick={() => household.add()}>A draw</Button>
        </Adding>
      </fieldset>
    </>
  );
}
