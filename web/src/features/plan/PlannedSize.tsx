import { useState } from "react";
import { parsed } from "@/lib/quantity";
import { useUnits } from "@/ui/units";
import { usePlanInUse, useSession, useSheet } from "./context";

const A_YEAR = 12;
const LONGEST = 1200;

/** The size that every figure is planned for, and what the animals outgrow on the way. */
export function PlannedSize() {
  const { session } = usePlanInUse();
  const monthsAhead = useSession((state) => state.monthsAhead);
  const [typed, setTyped] = useState<string | null>(null);
  const way = monthsAhead === null ? "grown" : monthsAhead === 0 ? "today" : "ahead";
  const choose = (months: number | null) => {
    setTyped(null);
    session.lookAhead(months);
  };
  const type = (text: string) => {
    setTyped(text);
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
            onClick={() => choose(months)}
            className="min-h-8 rounded-sm border border-transparent px-2 text-quiet hover:border-line aria-pressed:bg-edge aria-pressed:font-semibold aria-pressed:text-ground pointer-coarse:min-h-11"
          >
            {words}
          </button>
        ))}
        <input
          aria-label="Months ahead"
          inputMode="decimal"
          value={typed ?? (way === "ahead" ? String(monthsAhead) : "")}
          placeholder={String(A_YEAR)}
          onChange={(event) => type(event.target.value)}
          onBlur={() => setTyped(null)}
          className="num min-h-8 w-14 rounded-sm border border-line bg-paper px-2 text-right placeholder:text-quiet/80 pointer-coarse:min-h-11"
        />
        <span className="text-quiet">months</span>
      </div>
      <Outgrown />
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
        Outgrown in {units.text(Math.round(first.months), "months")}: {first.label.toLowerCase()}
      </span>
      {later.length > 0 && (
        <span className="text-quiet">
          ; then{" "}
          {later
            .map((row) => `${row.label.toLowerCase()} in ${units.text(Math.round(row.months), "months")}`)
            .join(", ")}
        </span>
      )}
      .
    </p>
  );
}
