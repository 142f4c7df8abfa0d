import { useState } from "react";
import { RackDialog } from "../RackDialog";
import { useRoom, useRoomInUse } from "../context";
import { Figures } from "@/ui/root/Figures";
import { Button } from "@/ui/controls";
import { ChoiceField, NumberField, TextField } from "@/ui/editing/fields";
import { Adding, LINE, Remove, useRows, Worded } from "@/ui/editing/rows";

/** Where racks stand, what stands on them, and what the floor bears. */
export function RacksStage() {
  const [asking, setAsking] = useState(false);
  const { session } = useRoomInUse();
  const racks = useRoom((room) => room.racks ?? []);
  const { full } = useRows("racks");
  const remove = (at: number) => {
    const room = session.state.content;
    const left = (room.places ?? []).filter(({ rack }) => rack !== at + 1);
    session.replace({
      ...room,
      racks: racks.toSpliced(at, 1),
      places: left.map((place) => ({
        ...place,
        rack: Number(place.rack) > at + 1 ? Number(place.rack) - 1 : place.rack,
      })),
    });
  };
  return (
    <>
      <Figures keys={["tank_number", "room_water_l", "heaviest_rack_kg", "most_floor_kpa"]} />
      {racks.map((rack, i) => (
        <section key={i} aria-label={`Rack ${rack.rack_name || i + 1}`} className="mb-4">
          <div className={LINE}>
            <TextField path={`racks.${i}.rack_name`} oneLine />
            <Worded words="from the left">
              <NumberField path={`racks.${i}.rack_x_m`} bare />
            </Worded>
            <Worded words="from the back">
              <NumberField path={`racks.${i}.rack_y_m`} bare />
            </Worded>
            <ChoiceField path={`racks.${i}.rack_along`} bare />
            <Remove
              label={`Take ${rack.rack_name || `rack ${i + 1}`} out, with its tanks`}
              run={() => remove(i)}
            />
          </div>
          <div className="mt-1 grid gap-x-7 md:grid-cols-2">
            <NumberField path={`racks.${i}.rack_cm`} />
            <NumberField path={`racks.${i}.rack_depth_cm`} />
            <NumberField path={`racks.${i}.shelves`} />
            <NumberField path={`racks.${i}.lowest_cm`} />
            <NumberField path={`racks.${i}.shelf_cm`} />
            <NumberField path={`racks.${i}.rack_drain_mm`} />
          </div>
        </section>
      ))}
      <Adding to="racks" full={full}>
        <Button look="strong" onClick={() => setAsking(true)}>
          A rack of tanks
        </Button>
      </Adding>
      <div className="mt-5">
        <NumberField path="drain.floor_kn_m2" />
      </div>
      <Standing />
      <RackDialog open={asking} onOpenChange={setAsking} />
    </>
  );
}

const STATIONS = [
  ["tap", "Tap"],
  ["hot", "Hot store"],
  ["tub", "Reservoir"],
  ["purifier", "Reverse osmosis"],
  ["sink", "Sink"],
  ["drain", "Floor drain"],
] as const;

/** Where what is no rack stands, and the pipe and hose that are reckoned from there. */
function Standing() {
  return (
    <fieldset className="mt-5 mb-5">
      <legend className="mb-1 text-sm font-semibold">Where the rest stands</legend>
      {STATIONS.map(([key, label]) => (
        <div key={key} className={LINE}>
          <span className="w-32">{label}</span>
          <Worded words="from the left">
            <NumberField path={`stations.${key}_x_m`} bare />
          </Worded>
          <Worded words="from the back">
            <NumberField path={`stations.${key}_y_m`} bare />
          </Worded>
        </div>
      ))}
      <div className={LINE}>
        <span className="w-32">Manifold</span>
        <Worded words="from the left">
          <NumberField path="treatment.manifold_x_m" bare />
        </Worded>
        <Worded words="from the back">
          <NumberField path="treatment.manifold_y_m" bare />
        </Worded>
      </div>
      <div className="mt-2">
        <Figures keys={["feed_run_m", "hot_leg_l", "collector_m", "collector_drop_cm", "hose_m"]} />
      </div>
    </fieldset>
  );
}
