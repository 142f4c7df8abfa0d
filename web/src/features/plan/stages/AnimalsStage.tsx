import type { Finding, Plan, School } from "@/api/client";
import { Says } from "@/ui/Says";
import { SpeciesPicker } from "@/ui/SpeciesPicker";
import { stateWord, Tube } from "@/ui/Tube";
import { useUnits } from "@/ui/units";
import { Checks } from "../Checks";
import { useFigure, usePlan, usePlanInUse, useSheet } from "../context";
import { ChoiceField, NumberField } from "../fields";
import { Figures, FigureValue } from "../Figures";
import { FaultOf } from "../FaultSays";
import { PlannedSize } from "../PlannedSize";
import { Adding, Remove, useRows } from "../rows";

export function AnimalsStage() {
  const { add, full } = useRows("animals");
  return (
    <>
      <Groups />
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

type Group = NonNullable<Plan["animals"]>[number];

function Groups() {
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
            {species && species.confidence !== "high" && (
              <p className="text-sm text-quiet">
                Library values of {species.confidence} confidence: {species.source}.
              </p>
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
            <NumberField bare path={`${row}.weighed_g_d`} label={`Dry food: ${name}`} />
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
    </div>
  );
}

function Schools() {
  const schools = useSheet((sheet) => sheet.schools);
  if (schools.length === 0) return null;
  return (
    <section aria-labelledby="schools" className="mb-6">
      <h3 id="schools" className="mb-1 font-semibold">
        How many fit: the schools side by side
      </h3>
      <table className="w-full text-left">
        <thead className="text-sm text-quiet">
          <tr className="border-b border-line">
            <th scope="col" className="py-1 font-normal">
              School
            </th>
            <th scope="col" className="py-1 text-right font-normal">
              Used
            </th>
            <th scope="col" className="py-1 pl-4 font-normal">
              It would allow
            </th>
          </tr>
        </thead>
        <tbody>
          {schools.map((school) => (
            <SchoolRow key={school.key} school={school} />
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-quiet">
        Loquen goes by balance: it alone follows feed, filter and water changes. Space stays a limit of its
        own.
      </p>
    </section>
  );
}

function SchoolRow({ school }: { school: School }) {
  const units = useUnits();
  const colour = school.state === "short" ? "text-short" : school.applies ? "" : "text-quiet";
  return (
    <tr className={`border-b border-line/70 align-top ${school.picked ? "bg-paper" : ""}`}>
      <th scope="row" className="py-1.5 font-normal">
        <span className="font-semibold">{school.label}</span>
        {school.picked && <span className="text-sm text-quiet"> Loquen’s pick</span>}
        {school.binds && <span className="text-sm text-brass"> binds</span>}
        <span className="block text-sm text-quiet">{school.why}</span>
      </th>
      <td className={`num py-1.5 text-right whitespace-nowrap ${colour}`}>
        {school.share != null
          ? units.text(school.share, "share")
          : school.applies
            ? stateWord(school.state)
            : "–"}
      </td>
      <td className={`py-1.5 pl-4 ${colour}`}>
        <Says sentence={school.allows} />
      </td>
    </tr>
  );
}

function Findings() {
  const pairs = useSheet((sheet) => sheet.pairs);
  const suited = useSheet((sheet) => sheet.suited);
  const company = useSheet((sheet) => sheet.company);
  const lists: [string, Finding[]][] = [
    ["Company, group by group", company],
    ["Pair by pair", pairs],
    ["Each in this water", suited],
  ];
  return lists
    .filter(([, found]) => found.length > 0)
    .map(([title, found]) => (
      <details key={title} className="mb-3">
        <summary className="cursor-pointer font-semibold">
          {title}{" "}
          <span className="font-normal text-quiet">
            {found.length} compared, {found.filter(({ state }) => state !== "holds").length} to settle
          </span>
        </summary>
        <ul className="mt-1">
          {found.map((finding, i) => (
            <li key={i} className="flex items-start gap-2 border-b border-line/60 py-1 text-sm">
              <Tube state={finding.state} height={22} />
              <span>
                {finding.who.join(" and ")}, {finding.what}:{" "}
                <span className={finding.state === "short" ? "text-short" : "text-quiet"}>
                  <Says sentence={finding.sentence} />{" "}
                  <span className="sr-only">({stateWord(finding.state)})</span>
                </span>
              </span>
            </li>
          ))}
        </ul>
      </details>
    ));
}
