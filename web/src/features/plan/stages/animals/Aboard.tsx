import type { Plan } from "@/api/client";
import { useFigure, usePlan, usePlanInUse } from "../../context";
import { FaultOf } from "@/ui/editing/FaultSays";
import { ChoiceField, NumberField, TextField } from "@/ui/editing/fields";
import { FigureValue } from "@/ui/root/Figures";
import { Remove, useRows, Worded } from "@/ui/editing/rows";

type Group = NonNullable<Plan["animals"]>[number];

/** Every group of animals: who, how many, how large today, how fed. */
export function Aboard() {
  const { library } = usePlanInUse();
  const { remove } = useRows("animals");
  const groups = usePlan((plan) => plan.animals) ?? [];
  if (groups.length === 0)
    return <p className="mb-3 text-quiet">Start with who is to live here, full grown.</p>;
  return (
    <ul aria-label="Animals aboard" className="mb-4 border-t border-line">
      {groups.map((group, i) => {
        const species = library.species.find((row) => row.key === group.species);
        const name = species?.common ?? group.species;
        return (
          <li key={i} aria-label={name} className="border-b border-line py-2">
            <div className="flex items-center gap-3">
              <NumberField bare path={`animals.${i}.number`} label={`How many: ${name}`} />
              <span className="min-w-0 flex-1">
                <span className="font-semibold">{name}</span>{" "}
                <i className="text-sm text-quiet">{species?.scientific}</i>
              </span>
              <Remove label={`Take out ${name}`} run={() => remove(i)} />
            </div>
            <FaultOf path={`animals.${i}.species`} />
            <GroupDetails at={i} group={group} name={name} />
            {species?.confidence === "low" && (
              <p className="text-sm text-quiet">Little is known of it: take its values with care.</p>
            )}
            {species?.note && (
              <p className="mt-1 text-sm text-brass first-letter:uppercase">{species.note}.</p>
            )}
          </li>
        );
      })}
    </ul>
  );
}

/** What most never touch: days without food, what is left of it, the keeper's own rule for their room and why. */
function More({ row, name }: { row: string; name: string }) {
  return (
    <details className="basis-full">
      <summary className="cursor-pointer text-quiet">
        fasting, leftovers, your own rule for their room
      </summary>
      <span className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1">
        <Worded words="meals a day">
          <NumberField bare path={`${row}.meals_d`} label={`Meals a day: ${name}`} />
        </Worded>
        <span className="text-quiet">
          each <FigureValue name={`${row}.meal_g`} />
        </span>
        <Worded words="fasting days a week">
          <NumberField bare path={`${row}.fasting_d_wk`} label={`Fasting days: ${name}`} />
        </Worded>
        <Worded words="left uneaten">
          <NumberField bare path={`${row}.uneaten_frac`} label={`Left uneaten: ${name}`} />
        </Worded>
        <Worded words="litres for one">
          <NumberField bare path={`${row}.own_litres`} label={`Own litres: ${name}`} placeholder="usual" />
        </Worded>
        <Worded words="adult lengths of tank">
          <NumberField bare path={`${row}.own_lengths`} label={`Own lengths: ${name}`} placeholder="usual" />
        </Worded>
        <span className="basis-full max-w-md">
          <TextField oneLine path={`${row}.own_reason`} />
        </span>
      </span>
    </details>
  );
}

function GroupDetails({ at, group, name }: { at: number; group: Group; name: string }) {
  const row = `animals.${at}`;
  const shown = useFigure(`${row}.length_now_cm`) !== undefined;
  return (
    <div className="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
      <span className="flex items-center gap-1.5">
        <span className="text-quiet">today</span>
        <ChoiceField bare path={`${row}.size_by`} label={`Size today: ${name}`} />
        {group.size_by === "length" && (
          <NumberField bare path={`${row}.length_cm`} label={`Length today: ${name}`} />
        )}
        {group.size_by === "age" && <NumberField bare path={`${row}.age_months`} label={`Age: ${name}`} />}
      </span>
      <span className="flex items-center gap-1.5">
        <span className="text-quiet">fed</span>
        <ChoiceField bare path={`${row}.feed_by`} label={`Feeding: ${name}`} />
        {group.feed_by === "weighed" && (
          <>
            <NumberField bare path={`${row}.weighed_g_d`} label={`Food: ${name}`} />
            <ChoiceField bare path={`${row}.food`} label={`Kind of food: ${name}`} />
            <span className="text-quiet">protein</span>
            <NumberField
              bare
              path={`${row}.food_protein_frac`}
              label={`Protein: ${name}`}
              placeholder="usual"
            />
          </>
        )}
      </span>
      <span className="flex items-center gap-1.5">
        <span className="text-quiet">males</span>
        <NumberField bare path={`${row}.males`} label={`Males: ${name}`} placeholder="?" />
      </span>
      {shown && (
        <span className="text-quiet">
          <FigureValue name={`${row}.length_now_cm`} /> now, <FigureValue name={`${row}.adult_length_cm`} />{" "}
          grown, <FigureValue name={`${row}.waste_then_mg_d`} />
        </span>
      )}
      <More row={row} name={name} />
    </div>
  );
}
