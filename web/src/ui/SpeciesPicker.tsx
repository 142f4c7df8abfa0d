import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import type { Species } from "@/api/client";
import { libraryQuery } from "@/api/queries";
import { useUnits } from "./units";

const MOST_SHOWN = 8;

/** Species whose common or scientific name holds every typed word; names that begin so come first. */
export function matching(all: Species[], typed: string): Species[] {
  const words = typed.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const name = (row: Species) => `${row.common} ${row.scientific}`.toLowerCase();
  const begins = (row: Species) => (row.common.toLowerCase().startsWith(words[0] ?? "") ? 0 : 1);
  return all
    .filter((row) => words.every((word) => name(row).includes(word)))
    .sort((a, b) => begins(a) - begins(b) || a.common.localeCompare(b.common));
}

/** Pick an animal from the library by typing a part of either name. */
export function SpeciesPicker({ label, pick }: { label: string; pick: (species: Species) => void }) {
  const species = useQuery(libraryQuery).data?.species ?? [];
  const units = useUnits();
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(0);
  const list = useId();
  const found = typed.trim() ? matching(species, typed) : [];
  const shown = found.slice(0, MOST_SHOWN);
  const choose = (row: Species | undefined) => {
    if (!row) return;
    pick(row);
    setTyped("");
    setAt(0);
  };
  const press = (event: React.KeyboardEvent) => {
    if (event.key === "ArrowDown") setAt(Math.min(at + 1, shown.length - 1));
    else if (event.key === "ArrowUp") setAt(Math.max(at - 1, 0));
    else if (event.key === "Enter") choose(shown[at]);
    else if (event.key === "Escape" && typed) setTyped("");
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div>
      <input
        role="combobox"
        aria-label={label}
        aria-expanded={shown.length > 0}
        aria-controls={list}
        aria-activedescendant={shown.length ? `${list}-${at}` : undefined}
        placeholder={`${label}: common or scientific name`}
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(0);
        }}
        onKeyDown={press}
        className="min-h-9 w-full border-b border-edge bg-transparent px-1 placeholder:text-quiet pointer-coarse:min-h-11"
      />
      {typed.trim() && (
        <div className="border border-t-0 border-line bg-paper">
          <ul id={list} role="listbox" aria-label="Animals found">
            {shown.map((row, i) => (
              <li
                key={row.key}
                id={`${list}-${i}`}
                role="option"
                aria-selected={i === at}
                onMouseDown={(event) => event.preventDefault()}
                onClick={() => choose(row)}
                className="cursor-pointer px-3 py-1.5 aria-selected:bg-water"
              >
                {row.common} <i className="text-quiet">{row.scientific}</i>
                <span className="block text-xs text-quiet">
                  to {units.text(row.adult_length_cm, "length")} · {units.text(row.temp_low_c, "temperature")}{" "}
                  to {units.text(row.temp_high_c, "temperature")} · pH {row.ph_low}–{row.ph_high}
                </span>
              </li>
            ))}
          </ul>
          {found.length === 0 && (
            <p className="px-3 py-2 text-sm text-quiet">No such animal in the library.</p>
          )}
          {found.length > shown.length && (
            <p className="px-3 py-1 text-xs text-quiet">and {found.length - shown.length} more: type on</p>
          )}
        </div>
      )}
    </div>
  );
}
