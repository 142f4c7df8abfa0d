import { Button } from "@/ui/controls";
import { Fields } from "@/ui/fields/Row";
import { usePlan } from "../../context";
import { ChoiceField, NumberField } from "@/ui/editing/fields";
import { Adding, LINE, Remove, useRows, Worded } from "@/ui/editing/rows";

/** What lies on the base: the bed, other beds in parts of it, stones and wood. */
export function Floor() {
  const tank = usePlan((plan) => plan.tank);
  const patches = usePlan((plan) => plan.patches) ?? [];
  const { add, remove, full } = useRows("patches");
  const soil = tank.bed === "soil" || patches.some((row) => row.patch_bed === "soil");
  return (
    <>
      <Fields legend="What lies in it">
        <ChoiceField path="tank.bed" />
        {tank.bed !== "none" && (
          <>
            <NumberField path="tank.bed_front_cm" />
            <NumberField path="tank.bed_back_cm" />
            <NumberField path="tank.bag_l" />
          </>
        )}
        {soil && <NumberField path="tank.soil_left_meq_l" />}
        <NumberField path="tank.rock_kg" />
        <NumberField path="tank.wood_l" />
        <NumberField path="tank.lime_kg" />
        {tank.lime_kg > 0 && <NumberField path="tank.lime_grain_mm" />}
        <ChoiceField path="tank.siphoned_by" />
        <NumberField path="tank.siphoned_frac" placeholder="by habit" />
      </Fields>
      <section aria-label="Other beds" className="mb-5">
        {patches.length > 0 && (
          <ul>
            {patches.map((_, i) => (
              <li key={i} className={LINE}>
                <ChoiceField bare path={`patches.${i}.patch_bed`} label={`Bed of part ${i + 1}`} />
                <Worded words="on">
                  <NumberField bare path={`patches.${i}.patch_frac`} label={`Part ${i + 1} of the floor`} />
                </Worded>
                <Worded words="front">
                  <NumberField bare path={`patches.${i}.patch_front_cm`} label={`Front of part ${i + 1}`} />
                </Worded>
                <Worded words="back">
                  <NumberField bare path={`patches.${i}.patch_back_cm`} label={`Back of part ${i + 1}`} />
                </Worded>
                <Remove label={`Take out part ${i + 1} of the floor`} run={() => remove(i)} />
              </li>
            ))}
          </ul>
        )}
        <Adding to="patches" full={full}>
          <Button look="word" onClick={() => add()}>
            add another bed on a part of the floor
          </Button>
        </Adding>
      </section>
    </>
  );
}
