import { useQuery } from "@tanstack/react-query";
import { watersQuery } from "@/api/queries";
import { Select } from "@/ui/controls";
import { Fields } from "@/ui/fields/Row";
import { Says } from "@/ui/figures/Says";
import { usePlan, useSheet } from "../../context";
import { ChoiceField, NumberField } from "@/ui/editing/fields";
import { Adding, Remove, useRows } from "@/ui/editing/rows";

/** The waters of the mix, taken from the shared list, each with its part. */
export function Mix() {
  const sources = usePlan((plan) => plan.sources) ?? [];
  const questions = useSheet((sheet) => sheet.questions);
  const shared = (useQuery(watersQuery).data ?? []).filter((row) => row.water);
  const { add: put, remove, full } = useRows("sources");
  const add = (id: string) => {
    const found = shared.find((row) => String(row.id) === id);
    if (found) put({ ...found.water, src_parts: 1 });
  };
  return (
    <section aria-label="The mix" className="mb-5">
      <h3 className="mb-1 text-sm font-semibold">The mix</h3>
      {sources.length === 0 && (
        <Fields legend="One water, entered here">
          <NumberField path="water.source_kh_dkh" />
          <NumberField path="water.source_us_cm" />
          <NumberField path="water.source_nitrate_mg_l" />
        </Fields>
      )}
      <ul>
        {sources.map((row, i) => (
          <li
            key={i}
            className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line/70 py-1 text-sm"
          >
            <NumberField bare path={`sources.${i}.src_parts`} label={`Parts of ${row.src_name}`} />
            <span className="font-semibold">{row.src_name}</span>
            <span className="flex items-center gap-1.5">
              <span className="text-quiet">GH</span>
              <NumberField bare path={`sources.${i}.src_gh_dgh`} label={`GH of ${row.src_name}`} />
            </span>
            <span className="flex items-center gap-1.5">
              <span className="text-quiet">KH</span>
              <NumberField bare path={`sources.${i}.src_kh_dkh`} label={`KH of ${row.src_name}`} />
            </span>
            <Remove label={`Take out ${row.src_name}`} run={() => remove(i)} />
            <span className="flex basis-full items-center gap-1.5">
              <span className="text-quiet">Disinfectant in it</span>
              <ChoiceField
                bare
                path={`sources.${i}.src_disinfectant`}
                label={`Disinfectant of ${row.src_name}`}
              />
              {(row.src_disinfectant === "chlorine" || row.src_disinfectant === "chloramine") && (
                <NumberField
                  bare
                  path={`sources.${i}.src_chlorine_mg_l`}
                  label={`Strength in ${row.src_name}`}
                  placeholder="–"
                />
              )}
            </span>
          </li>
        ))}
      </ul>
      <Adding to="sources" full={full}>
        <p className="mt-2 flex items-center gap-2 text-sm">
          <span className="text-quiet">Add</span>
          <Select
            label="Add a water"
            value=""
            placeholder="a water…"
            options={shared.map((row) => [String(row.id), row.water?.src_name ?? "Water"])}
            onChange={add}
          />
        </p>
      </Adding>
      {questions.map((question, i) => (
        <p key={i} className="mt-1 text-sm text-brass">
          {question.who.join(", ")}, {question.what}: <Says sentence={question.sentence} />
        </p>
      ))}
    </section>
  );
}
