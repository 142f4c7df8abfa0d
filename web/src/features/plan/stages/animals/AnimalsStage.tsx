import { SpeciesPicker } from "@/ui/fields/SpeciesPicker";
import { Checks } from "../../Checks";
import { usePlan, usePlanInUse } from "../../context";
import { Figures } from "@/ui/root/Figures";
import { Adding, useRows } from "@/ui/editing/rows";
import { Aboard } from "./Aboard";
import { Findings } from "./Findings";
import { PlannedSize } from "./PlannedSize";
import { Schools } from "./Schools";
import { WhatFits } from "./WhatFits";

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
      <WhatFits />
      <Checks stage="animals" />
      <Schools />
      <Findings />
      <Whence />
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

/** Where the library's values of these animals are from. */
function Whence() {
  const { library } = usePlanInUse();
  const kinds = usePlan((plan) => plan.animals ?? []).map(({ species }) => species);
  const told = new Set(library.species.filter(({ key }) => kinds.includes(key)).map(({ source }) => source));
  return [...told].map((source) => (
    <p key={source} className="mb-3 text-sm text-quiet first-letter:uppercase">
      {source}.
    </p>
  ));
}
