import type { Fodder, Larder } from "@/api/client";
import { Select } from "@/ui/controls";
import { useUnits } from "@/ui/units";

interface CulturesProps {
  found: Fodder;
  keep: (larder: Larder) => Promise<boolean>;
}

/** Live food that is grown here: what it gives a week against what the rotas want. */
export function Cultures({ found, keep }: CulturesProps) {
  const units = useUnits();
  const kept = found.larder.cultures ?? [];
  const set = (culture: string, count: number) => {
    const others = kept.filter((row) => row.culture !== culture);
    void keep({ ...found.larder, cultures: count > 0 ? [...others, { culture, count }] : others });
  };
  const free = Object.entries(found.kinds_of_culture).filter(
    ([key]) => !found.cultures.some((row) => row.key === key),
  );
  const grams = (value: number) => units.text(value, "small_mass");
  return (
    <section aria-labelledby="cultures" className="border-t border-line py-3">
      <h2 id="cultures" className="mb-1 text-lg font-semibold">
        Cultures
      </h2>
      <ul>
        {found.cultures.map((row) => (
          <li key={row.key} className="flex flex-wrap items-center gap-x-3 border-b border-line/60 py-1">
            <input
              aria-label={`How many: ${row.label}`}
              inputMode="numeric"
              defaultValue={row.count}
              onBlur={(event) => {
                const typed = Number(event.target.value);
                if (Number.isInteger(typed) && typed >= 0 && typed <= 1000 && typed !== row.count)
                  set(row.key, typed);
              }}
              className="num min-h-8 w-14 rounded-sm border border-line bg-paper px-2 text-right pointer-coarse:min-h-11"
            />
            <span className="min-w-0 flex-1">
              <span className="font-semibold">{row.label}</span>{" "}
              <span className="text-sm text-quiet">
                ready after {units.text(row.ready_d, "days")}, tended every{" "}
                {row.tended_d === 1 ? "day" : units.text(row.tended_d, "days")}
              </span>
            </span>
            <span className={`text-sm ${row.wanted_g_wk > row.yield_g_wk ? "text-short" : "text-quiet"}`}>
              {grams(row.yield_g_wk)} of {row.food} a week, {grams(row.wanted_g_wk)} wanted
              {row.wanted_g_wk > row.yield_g_wk && `: ${row.enough} of it would do`}
            </span>
          </li>
        ))}
      </ul>
      {free.length > 0 && (
        <p className="pt-2">
          <Select
            label="Keep a culture"
            value=""
            placeholder="keep another…"
            options={free}
            onChange={(culture) => set(culture, 1)}
          />
        </p>
      )}
      <p className="mt-1 text-sm text-quiet">
        Yields are keepers’ rules, unverified: weigh yours. Nothing from a culture is let go outside.
      </p>
    </section>
  );
}
