import { useQuery } from "@tanstack/react-query";
import { Printer } from "lucide-react";
import type { Source } from "@/api/client";
import { watersQuery } from "@/api/queries";
import { Button, Select } from "@/ui/controls";
import { Says } from "@/ui/Says";
import { Checks } from "../Checks";
import { usePlan, usePlanInUse, useSheet } from "../context";
import { ChoiceField, Fields, NumberField, Row, SwitchField } from "../fields";
import { Figures, FigureValue } from "../Figures";
import { Adding, Remove, useRows } from "../rows";
import { SaltMove } from "../SaltMove";

/** What goes into the tank: waters mixed, salts weighed in, warmed and disinfected, as one recipe. */
export function SourceStage() {
  const water = usePlan((plan) => plan.water);
  const sources = usePlan((plan) => plan.sources);
  const mixed = (sources ?? []).length > 0;
  const kind = mixed
    ? worst((sources ?? []).filter(poured).map((row) => row.src_disinfectant ?? "none"))
    : water.disinfectant;
  const treated = kind !== "none";
  return (
    <>
      <Card />
      <Mix />
      <Fields legend="Wanted, and what is weighed in">
        <NumberField path="recipe.target_gh_dgh" placeholder="as is" />
        <NumberField path="recipe.target_kh_dkh" placeholder="as is" />
        <ChoiceField path="recipe.calcium_salt" />
        <ChoiceField path="recipe.magnesium_salt" />
        <NumberField path="recipe.calcium_frac" />
        <ChoiceField path="recipe.carbonate_salt" />
        <NumberField path="recipe.product_g" placeholder="none" />
      </Fields>
      <Fields legend="Disinfectant in it">
        {mixed ? (
          <Row label="Strength in the mix">
            <FigureValue name="present_chlorine_mg_l" />
          </Row>
        ) : (
          <ChoiceField path="water.disinfectant" />
        )}
        {treated && (
          <>
            {!mixed && <NumberField path="water.disinfectant_mg_l" />}
            <ChoiceField path="water.treatment" />
            <Ways chloramine={kind === "chloramine"} />
          </>
        )}
      </Fields>
      {treated && (
        <Figures
          keys={[
            "dosed_l",
            "dose_ml",
            "thiosulfate_g",
            "left_chlorine_mg_l",
            "freed_ammonia_mg_l",
            "ageing_h",
            "carbon_min",
            "carbon_needed_min",
          ]}
        />
      )}
      <Checks stage="source" />
      <Fields legend="Warmth">
        <NumberField path="water.source_c" />
        <NumberField path="recipe.hot_c" />
        <NumberField path="recipe.fill_l_min" />
      </Fields>
      <SaltMove />
      <Fields legend="The tank’s own water">
        <NumberField path="water.tank_ph" />
        <NumberField path="water.tank_gh_dgh" />
        <NumberField path="water.tank_us_cm" placeholder="settled" />
        <ChoiceField path="water.topped_up" />
      </Fields>
      <Figures
        keys={[
          "new_gh_dgh",
          "new_kh_dkh",
          "new_us_cm",
          "new_nitrate_mg_l",
          "calcium_g",
          "magnesium_g",
          "carbonate_g",
          "coral_dkh",
          "mix_c",
          "hot_frac",
          "hot_s",
          "mix_summer_c",
          "hot_summer_s",
          "product_dose_g",
          "hot_sodium",
        ]}
      />
    </>
  );
}

/** Whether a water has a part in the mix. */
const poured = ({ src_parts }: Source) => (src_parts ?? 0) > 0;

/** The one of several disinfectants that is harder to be rid of. */
function worst(kinds: string[]): string {
  return ["chloramine", "chlorine"].find((kind) => kinds.includes(kind)) ?? "none";
}

function Ways({ chloramine }: { chloramine: boolean }) {
  const water = usePlan((plan) => plan.water);
  if (water.treatment === "carbon")
    return (
      <>
        <ChoiceField path="water.carbon_kind" />
        <NumberField path="water.carbon_l" />
        <NumberField path="water.carbon_lph" />
      </>
    );
  if (water.treatment === "aged")
    return (
      <>
        <NumberField path="water.aged_h" />
        <SwitchField path="water.aerated" />
      </>
    );
  if (water.treatment === "none") return null;
  return (
    <>
      <NumberField path="water.conditioner_ml" />
      {chloramine && <NumberField path="water.chloramine_factor" />}
    </>
  );
}

/** The waters of the mix, taken from the shared list, each with its part. */
function Mix() {
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

/** The recipe of one change, as a card that prints alone. */
function Card() {
  const card = useSheet((sheet) => sheet.card);
  const name = usePlan((plan) => plan.name);
  const { openFigure } = usePlanInUse();
  const [first, ...steps] = card;
  if (!first) return null;
  return (
    <section aria-label="Recipe card" className="card mb-5 border-l-3 border-edge bg-paper px-4 py-3">
      <div className="flex items-start justify-between gap-4">
        <p className="font-semibold">
          <span className="hidden print:inline">{name}. </span>
          <Says sentence={first} open={openFigure} />
        </p>
        <Button
          look="word"
          onClick={() => window.print()}
          className="inline-flex items-center gap-1.5 print:hidden"
        >
          <Printer size={15} /> print
        </Button>
      </div>
      <ol className="list-inside list-decimal">
        {steps.map((line, i) => (
          <li key={i}>
            <Says sentence={line} open={openFigure} />
          </li>
        ))}
      </ol>
      {steps.length === 0 && (
        <p className="text-quiet">As it comes from the tap, at the tank’s temperature.</p>
      )}
    </section>
  );
}
