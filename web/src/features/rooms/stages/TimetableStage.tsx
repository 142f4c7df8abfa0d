import { NumberField, SwitchField } from "@/ui/editing/fields";
import { Adding, LINE, Remove, useRows, Worded } from "@/ui/editing/rows";
import { Button } from "@/ui/controls";
import { Fields } from "@/ui/fields/Row";
import { DayChart, daysOf, scheduleOf } from "../charts/DayChart";
import { useUnits } from "@/ui/units";
import { useRoom, useRoomInUse, useRoomSheet } from "../context";
import { Figures } from "@/ui/root/Figures";

/** Hot water over the day: when each zone runs in winter and in summer, and the store under it. */
export function TimetableStage() {
  const seasons = useRoomSheet((sheet) => sheet.seasons) ?? [];
  const windows = useRows("windows");
  const household = useRows("household");
  const pumped = useRoom((room) => (room.zones ?? []).some(({ fed_from }) => fed_from === "reservoir"));
  return (
    <>
      {seasons.map((season) => (
        <figure key={season.name} className="mb-4">
          <figcaption className="mb-1 text-sm">
            <b className="capitalize">{season.name}</b>
            {daysOf(season).every(({ table }) => table.feasible)
              ? `: ${scheduleOf(season).length} starts, no two at once; what they draw from refills between`
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
          ...(pumped ? ["pumped_l_d", "reservoir_serves_l", "ready_winter_lph", "least_reservoir_l"] : []),
        ]}
      />
      <Steps />
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
        <NumberField path="store.summer_mixed_c" placeholder="same" />
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
      <Fields legend="A reservoir that is pumped">
        <NumberField path="reservoir.reservoir_l" />
        <NumberField path="reservoir.reservoir_c" />
        <NumberField path="reservoir.reservoir_w" />
        <NumberField path="reservoir.reservoir_loss_w" />
        <NumberField path="reservoir.refill_lph" />
        <NumberField path="reservoir.reservoir_usable_frac" />
        <NumberField path="reservoir.reservoir_reserve_l" />
        <NumberField path="reservoir.reservoir_purified_frac" />
        <NumberField path="reservoir.added_us_cm" />
        <NumberField path="reservoir.added_dkh" />
      </Fields>
      <p className="-mt-3 mb-5 text-sm text-quiet">
        Which zones are fed from it is said at each zone, its pump at the changer.
      </p>
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

/** What one pulse does to each tank's warmth in winter: as planned, and when something fails. */
function Steps() {
  const rows = useRoomSheet((sheet) => sheet.failing) ?? [];
  const tanks = useRoomSheet((sheet) => sheet.tanks) ?? [];
  const { pick } = useRoomInUse();
  const units = useUnits();
  if (rows.length === 0) return null;
  const cell = "num py-0.5 pl-3 text-right whitespace-nowrap";
  return (
    <div className="mb-5 max-h-56 overflow-auto">
      <table className="w-full text-left text-sm">
        <caption className="mb-1 text-left font-semibold">One pulse in winter, tank by tank</caption>
        <thead className="sticky top-0 bg-ground text-quiet">
          <tr className="border-b border-line">
            {["Tank", "step", "cold side failed", "no warmth left", "stuck 8 h"].map((words, i) => (
              <th key={words} scope="col" className={`py-1 font-normal ${i ? "pl-3 text-right" : ""}`}>
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.tank} className="border-b border-line/70">
              <th scope="row" className="py-0.5 font-normal">
                <button
                  type="button"
                  onClick={() => pick(tanks.find(({ name }) => name === row.tank)?.number ?? null)}
                  className="min-h-8 px-1 text-edge-deep hover:underline pointer-coarse:min-h-11"
                >
                  {row.tank}
                </button>
              </th>
              <td className={cell}>{units.text(row.step_k, "temperature_difference")}</td>
              <td className={cell}>{units.text(row.scalded_c, "temperature")}</td>
              <td className={cell}>{units.text(row.chilled_c, "temperature")}</td>
              <td className={cell}>{units.text(row.stuck_c, "temperature")}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
