import { useQuery } from "@tanstack/react-query";
import type { Species } from "@/api/client";
import { libraryQuery } from "@/api/queries";
import { useUnits } from "@/ui/units";
import { Combobox } from "./Combobox";

const MOST_SHOWN = 8;

/** Species whose common, scientific or trade names hold every typed word; where a name, then a word, begins so comes first. */
export function matching(all: Species[], typed: string): Species[] {
  const words = typed.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const name = (row: Species) => `${row.common} ${row.scientific} ${row.aliases.join(" ")}`.toLowerCase();
  const first = words[0] ?? "";
  const begins = (row: Species) =>
    name(row).startsWith(first) ? 0 : name(row).includes(` ${first}`) ? 1 : 2;
  return all
    .filter((row) => words.every((word) => name(row).includes(word)))
    .sort((a, b) => begins(a) - begins(b) || a.common.localeCompare(b.common));
}

/** Pick an animal from the library by typing a part of either name. */
export function SpeciesPicker({ label, pick }: { label: string; pick: (species: Species) => void }) {
  const species = useQuery(libraryQuery).data?.species ?? [];
  return (
    <Combobox
      label={label}
      placeholder={`${label}: common or scientific name`}
      listLabel="Animals found"
      find={(typed) => matching(species, typed)}
      most={MOST_SHOWN}
      keyOf={(row) => row.key}
      show={(row) => <Found row={row} />}
      pick={pick}
      none="No such animal in the library."
    />
  );
}

function Found({ row }: { row: Species }) {
  const units = useUnits();
  return (
    <>
      {row.common} <i className="text-quiet">{row.scientific}</i>
      {row.aliases.length > 0 && <span className="text-sm text-quiet"> · {row.aliases.join(", ")}</span>}
      <span className="block text-xs text-quiet">
        to {units.text(row.adult_length_cm, "length")} · {units.text(row.temp_low_c, "temperature")} to{" "}
        {units.text(row.temp_high_c, "temperature")} · pH {row.ph_low}–{row.ph_high}
      </span>
    </>
  );
}
