import { useState } from "react";
import type { WeekFood } from "@/api/client";
import { useUnits } from "@/ui/units";

interface ShelfProps {
  foods: WeekFood[];
  turn: (key: string, on: boolean) => void;
}

const FORMS: [WeekFood["food"]["form"], string][] = [
  ["dry", "Dry"],
  ["frozen", "Frozen"],
  ["fresh", "Fresh"],
  ["live", "Live"],
];
const SINKING = { floats: "floats", slow: "sinks slowly", sinks: "sinks" };

/** Every food that is known: what it is made of, and whether it is at hand. */
export function Shelf({ foods, turn }: ShelfProps) {
  const [all, setAll] = useState(false);
  const shown = foods.filter(({ here, grams_wk }) => all || here || grams_wk > 0);
  return (
    <section aria-labelledby="shelf" className="border-t border-line py-3">
      <h2 id="shelf" className="mb-1 flex flex-wrap items-baseline gap-x-4 text-lg font-semibold">
        At hand
        <button
          type="button"
          aria-expanded={all}
          onClick={() => setAll(!all)}
          className="text-sm font-semibold text-edge-deep underline-offset-4 hover:underline pointer-coarse:min-h-11"
        >
          {all ? "only what is at hand" : `all ${foods.length} foods`}
        </button>
      </h2>
      <div className="grid gap-x-8 gap-y-3 sm:grid-cols-2">
        {FORMS.map(([form, words]) => {
          const rows = shown.filter(({ food }) => food.form === form);
          return (
            rows.length > 0 && (
              <div key={form}>
                <h3 className="font-semibold text-quiet">{words}</h3>
                <ul aria-label={words}>
                  {rows.map((row) => (
                    <FoodLine key={row.food.key} row={row} turn={(on) => turn(row.food.key, on)} />
                  ))}
                </ul>
              </div>
            )
          );
        })}
      </div>
    </section>
  );
}

function FoodLine({ row, turn }: { row: WeekFood; turn: (on: boolean) => void }) {
  const units = useUnits();
  const { food } = row;
  return (
    <li className="border-b border-line/60">
      <label className="flex cursor-pointer items-baseline gap-2 py-1 pointer-coarse:min-h-11">
        <input
          type="checkbox"
          checked={row.here}
          onChange={(event) => turn(event.target.checked)}
          className="size-4.5 shrink-0 self-center accent-edge"
        />
        <span className="min-w-0 flex-1">
          {food.label}
          <span className="block text-sm text-quiet">
            {units.text(food.protein_frac, "share")} protein, {units.text(food.plant_frac, "share")} plant,{" "}
            {SINKING[food.sinking]}
            {food.bitten ? ", bitten off" : `, ${units.text(food.piece_mm, "thickness")}`}
            {food.hard && ", hard"}
            {food.coloured && ", with pigment"}
          </span>
        </span>
        {row.grams_wk > 0 && (
          <span className="num text-sm">{units.text(row.grams_wk, "small_mass")} a week</span>
        )}
      </label>
    </li>
  );
}
