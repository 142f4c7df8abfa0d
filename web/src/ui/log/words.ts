import type { Known, LogEntry, Logged } from "@/api/client";
import { headingDay, wholeDay } from "@/lib/shown/days";
import type { Units } from "@/lib/shown/quantity";

const HAPPENED: Record<string, string> = {
  arrival: "arrived",
  birth: "born here",
  measured: "measured",
  move: "moved",
  sale: "sold or given away",
  death: "died",
  signs: "signs seen",
};
/** Kinds whose amount is a number of animals. */
export const OF_ANIMALS = new Set(Object.keys(HAPPENED));

const LEFT: Record<string, string> = { eaten: "all eaten", some: "some left", much: "much left" };

/** One entry in words, short enough for a line. */
export function entryWords(row: Logged, known: Known, units: Units): string {
  const { entry } = row;
  const meal = entry.amount === 0 ? "fasted" : "fed";
  const kind = entry.kind === "feed" ? meal : (known.kinds[entry.kind] ?? entry.kind);
  const note = entry.note ? `: ${entry.note}` : "";
  if (entry.kind === "reading") {
    const kit = known.kits.find(({ key }) => key === entry.kit);
    const measure = known.measures.find(({ key }) => key === entry.what);
    const when = entry.when ? `, ${entry.when} the change` : "";
    const unit = kit?.unit ?? measure?.unit ?? "";
    const value = unit ? `${entry.value} ${unit}` : entry.value;
    return `${measure?.label ?? entry.what} ${value}${kit ? ` (${kit.label.toLowerCase()})` : ""}${when}${note}`;
  }
  if (row.who) {
    const heads = entry.amount == null || entry.kind === "signs" ? "" : `${entry.amount} `;
    const join = entry.kind === "measured" ? " " : ", ";
    const length = row.length_cm == null ? "" : join + units.text(row.length_cm, "length");
    const way = row.left && row.went_to ? ` from ${row.left} to ${row.went_to}` : "";
    return `${heads}${row.who} ${HAPPENED[entry.kind]}${length}${way}${note}`;
  }
  const parts = [
    entry.kind === "dose" ? (known.doses[entry.what ?? ""] ?? entry.what) : "",
    entry.kind === "filter" ? (known.cleaned[entry.what ?? ""] ?? "") : "",
    ["added", "taken", "experiment", "source", "light"].includes(entry.kind) ? entry.what : "",
    entry.litres == null ? "" : units.text(entry.litres, "volume"),
    entry.share == null ? "" : units.text(entry.share, "share"),
    entry.kind === "feed" && entry.amount === 0 ? "" : amount(entry),
    entry.kind === "feed" ? (LEFT[entry.what ?? ""] ?? entry.what) : "",
    entry.product,
    entry.kind === "filter" && entry.filter ? bed(entry.filter) : "",
    entry.until ? `until ${wholeDay(new Date(`${entry.until}T12:00`))}` : "",
  ].filter(Boolean);
  // A meal's amount follows it; what was left of it stands apart.
  const told = entry.kind === "feed" && entry.amount == null && parts.length > 0 ? "," : "";
  return `${kind}${told}${parts.length ? ` ${parts.join(", ")}` : ""}${note}`;
}

/** How much of it: heads of animals, else in the unit that it was measured in. */
function amount({ amount: value, unit, kind }: LogEntry): string {
  if (value == null) return "";
  if (OF_ANIMALS.has(kind)) return String(value);
  if (kind === "feed") return `${short(value)} g`;
  if (kind === "dose") return `${short(value)} ${unit || "g or mL"}`;
  return `${short(value)} ${unit ?? ""}`.trim();
}

/** A filter by its place in the plan, the sump by its name. */
const bed = (filter: string): string => (filter === "sump" ? "the sump" : `filter ${Number(filter) + 1}`);

const short = (value: number): string => String(Number(value.toPrecision(3)));

/** Days as headings: today, yesterday, or the date. */
export function dayWords(iso: string, now = new Date()): string {
  const day = new Date(iso);
  const apart = Math.round((startOf(now) - startOf(day)) / 86_400_000);
  if (apart === 0) return "today";
  if (apart === 1) return "yesterday";
  return headingDay(day);
}

const startOf = (at: Date): number => new Date(at.getFullYear(), at.getMonth(), at.getDate()).getTime();
