import type { School } from "@/api/client";
import { Says } from "@/ui/figures/Says";
import { stateWord } from "@/ui/figures/Tube";
import { useUnits } from "@/ui/units";
import { useSheet } from "../../context";
import { ChoiceField, SwitchField } from "@/ui/editing/fields";

/** What each school says of this tank, side by side. */
export function Schools() {
  const schools = useSheet((sheet) => sheet.schools);
  const fights = useSheet((sheet) =>
    sheet.pairs.some((row) => row.what === "temper" || row.what === "males"),
  );
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
      <div className="mt-1 max-w-md">
        <ChoiceField path="stocking.decides" />
        {fights && <SwitchField path="stocking.raised_together" />}
      </div>
      <p className="mt-1 text-sm text-quiet">
        Balance alone follows feed, filter and water changes, and is shown whichever decides. Length to swim
        stays a limit of its own.
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
        {school.picked && <span className="text-sm text-quiet"> decides</span>}
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
