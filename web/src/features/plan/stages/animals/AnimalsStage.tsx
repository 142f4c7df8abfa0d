import { SpeciesPicker } from "@/ui/fields/SpeciesPicker";
import { Checks } from "../../Checks";
import { Figures } from "../../Figures";
import { Adding, useRows } from "../../rows";
import { Aboard } from "./Aboard";
import { Findings } from "./Findings";
import { PlannedSize } from "./PlannedSize";
import { Schools } from "./Schools";

export function AnimalsStage() {
  const { add, full } = useRows("animals");
  return (
    <>
      <Aboard />
      <PlannedSize />
      <div className="mt-2 mb-6 max-w-md">
        <Adding to="animals" full={full}>
          <SpeciesPicker
            label="Add an animal"
            pick={({ key, group_least }) => add({ species: key, number: group_least })}
          />
        </Adding>
      </div>
      <Checks stage="animals" />
      <Schools />
      <Findings />
      <Figures
        keys={[
          "animal_count",
          "feed_total_g_d",
          "feed_full_g_d",
          "load_now_mg_d",
          "load_full_mg_d",
          "allowed_mg_d",
        ]}
      />
    </>
  );
}
