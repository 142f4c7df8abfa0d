import { parsed } from "@/lib/shown/quantity";
import { NumberBox } from "@/ui/fields/NumberBox";
import { useUnits } from "@/ui/units";
import { usePlan, usePlanInUse, useSession, useSheet } from "../../context";
import { ChoiceField, NumberField } from "@/ui/editing/fields";
import { Fields } from "@/ui/fields/Row";
import { midSentence } from "@/lib/shown/words";

const A_YEAR = 12;
const LONGEST = 1200;

/** The size that every figure is planned for, and what the animals outgrow on the way. */
export function PlannedSize() {
  const { session } = usePlanInUse();
  const monthsAhead = useSession((state) => state.monthsAhead);
  const way = monthsAhead === null ? "grown" : monthsAhead === 0 ? "today" : "ahead";
  const type = (text: string) => {
    const months = parsed(text);
    if (months !== null && months > 0 && months <= LONGEST) session.lookAhead(months);
  };
  const ways: [string, string, number | null][] = [
    ["grown", "full grown", null],
    ["today", "at today’s size", 0],
    ["ahead", "in", way === "ahead" ? monthsAhead : A_YEAR],
  ];
  return (
    <div className="mb-4">
      <div role="group" aria-label="Planned for" className="flex flex-wrap items-center gap-1 text-sm">
        <span className="mr-1 text-quiet">Every figure for them</span>
        {ways.map(([key, words, months]) => (
          <button
            key={key}
            type="button"
            aria-pressed={way === key}
            aria-label={key === "ahead" ? "some months ahead" : words}
            onClick={() => session.lookAhead(months)}
            className="min-h-8 rounded-sm border border-transparent px-2 text-quiet hover:border-line aria-pressed:bg-edge aria-pressed:font-semibold aria-pressed:text-ground pointer-coarse:min-h-11"
          >
            {words}
          </button>
        ))}
        <NumberBox
          narrow
          label="Months ahead"
          shown={way === "ahead" ? String(monthsAhead) : ""}
          type={type}
          placeholder={String(A_YEAR)}
        />
        <span className="text-quiet">months</span>
      </div>
      <Stay />
      <Outgrown />
    </div>
  );
}

/** How long they stay here: nothing is judged past it. */
function Stay() {
  const stays = usePlan((plan) => plan.stocking?.stays ?? "good");
  return (
    <div className="mt-2">
      <Fields legend="How long they stay">
        <ChoiceField path="stocking.stays" />
        {stays === "months" && <NumberField path="stocking.stays_months" />}
        {stays === "length" && <NumberField path="stocking.stays_until_cm" />}
      </Fields>
      {stays !== "good" && (
        <p className="text-sm text-quiet">
          Every check looks no further than the end of their stay. Written into the register, they get its
          date, and the round tells a month before it.
        </p>
      )}
    </div>
  );
}

function Outgrown() {
  const outgrown = useSheet((sheet) => sheet.outgrown);
  const units = useUnits();
  const [first, ...later] = outgrown;
  if (!first) return null;
  return (
    <p className="mt-2">
      <span className="text-short">
        Outgrown in {units.text(Math.round(first.months), "months")}: {midSentence(first.label)}
      </span>
      {later.length > 0 && (
        <span className="text-quiet">
          ; then{" "}
          {later
            .map((row) => `${midSentence(row.label)} in ${units.text(Math.round(row.months), "months")}`)
            .join(", ")}
        </span>
      )}
      .
    </p>
  );
}
