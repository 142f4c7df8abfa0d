import { written } from "@/lib/document/paths";
import type { Entry, Source } from "@/api/client";
import { parsed, type Units } from "@/lib/shown/quantity";

export type Typed = Record<string, string>;

/** A file's text: as it is written today, or as an older program wrote it. */
export function textOf(bytes: ArrayBuffer): string {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}

/** The fields of a water in the order of a report; the name stands apart. */
export const FIELDS = [
  "src_kind",
  "src_gh_dgh",
  "src_kh_dkh",
  "src_ph",
  "src_us_cm",
  "src_nitrate_mg_l",
  "src_sodium_mg_l",
  "src_chloride_mg_l",
  "src_c",
  "src_summer_c",
  "src_disinfectant",
  "src_chlorine_mg_l",
  "src_softened",
] as const;

/** What each field shows for a water, in the units in use. */
export function typedOf(water: Source, entries: Record<string, Entry>, units: Units): Typed {
  const values = water as Record<string, unknown>;
  return Object.fromEntries(
    ["src_name", ...FIELDS].map((name) => {
      const value = values[name];
      const kind = entries[`sources.*.${name}`]?.kind ?? "";
      return [name, typeof value === "number" ? units.entry(value, kind) : written(value)];
    }),
  );
}

/** What is sent for what was typed: numbers in the core's unit; text that is none goes as it is and is told about. */
export function sourceOf(water: Source, typed: Typed, entries: Record<string, Entry>, units: Units): Source {
  const sent: Record<string, unknown> = { ...water };
  for (const [name, text] of Object.entries(typed)) {
    const entry = entries[`sources.*.${name}`];
    if (!entry?.kind) sent[name] = text;
    else if (text.trim() === "" && entry.optional) sent[name] = null;
    else {
      const number = parsed(text, units.within(entry));
      sent[name] = number === null ? text : units.base(number, entry.kind);
    }
  }
  return sent as Source;
}
