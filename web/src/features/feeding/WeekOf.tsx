import { Link } from "@tanstack/react-router";
import type { GroupWeek, SystemWeek } from "@/api/client";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { stateWord } from "@/ui/figures/Tube";
import { useUnits } from "@/ui/units";
import { WEEK } from "./feeding";

interface WeekProps {
  week: SystemWeek;
  take: () => void;
}

/** One system's week: groups down, days to the right; what it lacks, what to mind, and how the meals went. */
export function WeekOf({ week, take }: WeekProps) {
  const units = useUnits();
  const { fed } = week;
  const meals = Object.values(fed.meals).reduce((sum, count) => sum + count, 0);
  return (
    <section aria-label={week.name} className="border-t border-line py-3">
      <h2 className="mb-1 flex flex-wrap items-baseline gap-x-3 text-lg leading-tight font-semibold">
        <Link
          to="/systems/$id/$stage"
          params={{ id: String(week.system_id), stage: "animals" }}
          className="hover:text-edge-deep hover:underline"
        >
          {week.name}
        </Link>
        <span className={`text-sm ${week.state === "short" ? "text-short" : "font-normal text-quiet"}`}>
          {week.state === "tight" ? "mind" : stateWord(week.state)}
        </span>
      </h2>
      {week.groups.map((group, i) => (
        <Group key={i} group={group} />
      ))}
      {week.minds.map((sentence, i) => (
        <p key={i} className="text-sm text-brass">
          <Says sentence={sentence} />
        </p>
      ))}
      {meals > 0 && (
        <p className="text-sm">
          Of {meals} meals {fed.meals.eaten} were eaten up, {fed.meals.some} left some, {fed.meals.much} left
          much: the rota gives {units.text(fed.part, "share")} of what the balance reckons.
        </p>
      )}
      {fed.of_rota !== null && (
        <p className="text-sm">
          On {fed.days} days the log has {units.text(fed.of_rota, "share")} of the rota’s grams.
        </p>
      )}
      {!week.same && (
        <Button className="mt-1" onClick={take}>
          Let the plan reckon with this food
        </Button>
      )}
    </section>
  );
}

function Group({ group }: { group: GroupWeek }) {
  const units = useUnits();
  const days = new Map(group.meals.map((meal) => [meal.day, meal]));
  return (
    <div className="mb-2 grid gap-x-4 border-b border-line/60 pb-1.5 sm:grid-cols-[200px_minmax(0,1fr)]">
      <p>
        <span className="num">{group.count}</span> <span className="font-semibold">{group.common}</span>
        <span className="block text-sm text-quiet">
          {units.text(group.dry_g_wk, "small_mass")} dry a week, {units.text(group.protein_frac, "share")}{" "}
          protein
          {group.plant_frac > 0 && `, ${units.text(group.plant_frac, "share")} plant`}
        </span>
      </p>
      {group.meals.length > 0 && (
        <ol
          aria-label={`Week of ${group.common}`}
          className="grid grid-cols-2 gap-x-2 gap-y-1 text-sm sm:grid-cols-7"
        >
          {WEEK.map((day) => {
            const meal = days.get(day);
            return (
              <li key={day} className="min-w-0 border-l border-line pl-1.5 leading-tight">
                <span className="num text-xs text-quiet">{day}</span>{" "}
                {meal ? (
                  <>
                    <span className={`block ${meal.hard ? "font-semibold text-brass" : ""}`}>
                      {meal.label}
                      {meal.hard && ", hard"}
                    </span>
                    <span className="num block text-xs">
                      {units.text(meal.grams, "small_mass")}
                      {meal.pieces !== null && meal.pieces >= 0.2 && ` ≈ ${pieces(meal.pieces)}`}
                    </span>
                  </>
                ) : (
                  <span className="block text-quiet">nothing</span>
                )}
              </li>
            );
          })}
        </ol>
      )}
      {group.how.map((sentence, i) => (
        <p key={i} className="text-sm text-quiet sm:col-span-2">
          <Says sentence={sentence} />
        </p>
      ))}
      {group.told.map((sentence, i) => (
        <p
          key={i}
          className={`text-sm sm:col-span-2 ${group.state === "short" ? "text-short" : "text-brass"}`}
        >
          <Says sentence={sentence} />
        </p>
      ))}
    </div>
  );
}

/** To the quarter under three pieces, to the half above. */
function pieces(count: number): string {
  const step = count < 3 ? 4 : 2;
  const rounded = Math.max(1 / step, Math.round(count * step) / step);
  return `${rounded} piece${rounded > 1 ? "s" : ""}`;
}
