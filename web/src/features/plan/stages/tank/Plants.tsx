import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { usePlan, useSheet } from "../../context";
import { ChoiceField, NumberField } from "@/ui/editing/fields";
import { FigureValue } from "@/ui/root/Figures";
import { Adding, LINE, Remove, useRows, Worded } from "@/ui/editing/rows";

/** Every kind of plant, what it covers and takes up, and what of this tank it does not stand. */
export function Plants() {
  const planting = usePlan((plan) => plan.planting) ?? [];
  const growing = useSheet((sheet) => sheet.growing);
  const { add, remove, full } = useRows("planting");
  return (
    <section aria-label="Plants" className="mb-5">
      <h3 className="mb-1 text-sm font-semibold">Plants</h3>
      <ul>
        {planting.map((_, i) => (
          <li key={i} className={LINE}>
            <ChoiceField bare path={`planting.${i}.plant`} label={`Plant ${i + 1}`} />
            <Worded words="covers">
              <NumberField bare path={`planting.${i}.plant_cover_frac`} label={`Cover of plant ${i + 1}`} />
            </Worded>
            <span className="text-quiet">
              takes <FigureValue name={`planting.${i}.plant_mg_d`} />
            </span>
            <Remove label={`Take out plant ${i + 1}`} run={() => remove(i)} />
            {(growing[i] ?? [])
              .filter(({ state }) => state !== "holds")
              .map((finding) => (
                <span key={finding.what} className="basis-full text-brass">
                  {finding.what}: <Says sentence={finding.sentence} />
                </span>
              ))}
          </li>
        ))}
      </ul>
      <Adding to="planting" full={full}>
        <Button look="word" onClick={() => add()}>
          add a plant
        </Button>
      </Adding>
    </section>
  );
}
