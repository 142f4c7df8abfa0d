import { useQuery } from "@tanstack/react-query";
import type { FirstWanted } from "@/api/client";
import { watersQuery } from "@/api/queries";
import { parsed, type Units } from "@/lib/shown/quantity";
import { Select } from "@/ui/controls";
import { NumberBox } from "@/ui/fields/NumberBox";
import { useUnits } from "@/ui/units";

/** The room, the water and what is wanted least of, as typed; nothing means a usual one. */
export interface Where {
  cold: string;
  warm: string;
  mean: string;
  water: string;
  tap: Tap;
  strength: string;
  least: NonNullable<FirstWanted["least"]>;
}

export const NOWHERE: Where = {
  cold: "",
  warm: "",
  mean: "",
  water: "0",
  tap: "unknown",
  strength: "",
  least: "room",
};
type Tap = NonNullable<FirstWanted["tap"]>["disinfectant"];
const TAPS: [NonNullable<Tap>, string][] = [
  ["unknown", "I do not know"],
  ["none", "none: a well, or rain"],
  ["chlorine", "chlorine"],
  ["chloramine", "chloramine"],
];
const USUAL_C = { cold: 16, warm: 27, mean: 20 };
const LEAST: [Where["least"], string][] = [
  ["room", "room"],
  ["work", "work"],
  ["power", "power"],
];

/** What is typed as it is asked for: a room when any of it is typed, the rest of it usual. */
export function asWanted(where: Where, units: Units): Pick<FirstWanted, "room" | "water" | "tap" | "least"> {
  const typed = (["cold", "warm", "mean"] as const).some((key) => where[key].trim());
  const celsius = (key: keyof typeof USUAL_C) => {
    const value = parsed(where[key]);
    if (!where[key].trim()) return USUAL_C[key];
    return (value === null ? where[key] : units.base(value, "temperature")) as number;
  };
  const room = { cold_c: celsius("cold"), warm_c: celsius("warm"), mean_c: celsius("mean") };
  return {
    room: typed ? room : null,
    water: Number(where.water) || null,
    tap: {
      disinfectant: where.tap,
      chlorine_mg_l: where.strength.trim() ? ((parsed(where.strength) ?? where.strength) as number) : null,
    },
    least: where.least,
  };
}

/** The one question of every start: what the tap carries. A water of the house says it itself. */
export function TapFields({ where, setWhere }: { where: Where; setWhere: (where: Where) => void }) {
  const strong = where.tap === "chlorine" || where.tap === "chloramine";
  if (where.water !== "0") return null;
  return (
    <fieldset className="mt-4 text-sm">
      <legend className="mb-1 font-semibold">What does your tap carry?</legend>
      <div className="flex flex-wrap items-center justify-between gap-3">
        <Select
          label="Disinfectant in the tap"
          value={where.tap ?? "unknown"}
          options={TAPS}
          onChange={(tap) => setWhere({ ...where, tap: tap as Tap })}
        />
        {strong && (
          <NumberBox
            narrow
            label="Its strength, mg/L as Cl₂"
            shown={where.strength}
            placeholder="not known"
            type={(strength) => setWhere({ ...where, strength })}
            unit="mg/L Cl₂"
          />
        )}
      </div>
      {where.tap === "unknown" && (
        <p className="mt-1 text-quiet">
          Then it is reckoned as chloraminated at the usual most, until you have asked the water company.
        </p>
      )}
    </fieldset>
  );
}

export function WhereFields({ where, setWhere }: { where: Where; setWhere: (where: Where) => void }) {
  const units = useUnits();
  const waters = useQuery(watersQuery).data ?? [];
  const unit = units.unit("temperature").label;
  const box = (key: keyof typeof USUAL_C, label: string) => (
    <label className="flex items-center justify-between gap-3">
      <span>{label}</span>
      <NumberBox
        narrow
        label={`${label}, ${unit}`}
        shown={where[key]}
        placeholder={units.entry(USUAL_C[key], "temperature")}
        type={(text) => setWhere({ ...where, [key]: text })}
        unit={unit}
      />
    </label>
  );
  return (
    <details className="mt-4">
      <summary className="min-h-8 cursor-pointer text-sm font-semibold text-edge-deep pointer-coarse:min-h-11">
        The room, the water, and what you want least of
      </summary>
      <div className="mt-2 grid gap-2 text-sm">
        {box("cold", "Coldest night in the room")}
        {box("warm", "Hottest day in the room")}
        {box("mean", "Mean of the year")}
        <div className="flex items-center justify-between gap-3">
          <span>Change water</span>
          <Select
            label="Change water"
            value={where.water}
            options={[
              ["0", "a usual tap"],
              ...waters
                .filter(({ water }) => water)
                .map(({ id, water }): [string, string] => [String(id), water?.src_name ?? ""]),
            ]}
            onChange={(water) => setWhere({ ...where, water })}
          />
        </div>
        <div className="flex items-center justify-between gap-3">
          <span>Least of</span>
          <Select
            label="Least of"
            value={where.least}
            options={LEAST}
            onChange={(least) => setWhere({ ...where, least: least as Where["least"] })}
          />
        </div>
      </div>
    </details>
  );
}
