import type { Known, Logged } from "@/api/client";
import type { Units } from "@/lib/quantity";

const LEFT: Record<string, string> = { eaten: "all eaten", some: "some left", much: "much left" };

/** One entry in words, short enough for a line. */
export function entryWords(row: Logged, known: Known, units: Units): string {
  const { entry } = row;
  const kind = known.kinds[entry.kind] ?? entry.kind;
  const note = entry.note ? `: ${entry.note}` : "";
  if (entry.kind === "reading") {
    const kit = known.kits.find(({ key }) => key === entry.kit);
    const measure = known.measures.find(({ key }) => key === entry.what);
    const when = entry.when ? `, ${entry.when} the change` : "";
    return `${measure?.label ?? entry.what} ${entry.value}${kit ? ` (${kit.label.toLowerCase()})` : ""}${when}${note}`;
  }
  const parts = [
    entry.kind === "dose" ? (known.doses[entry.what ?? ""] ?? entry.what) : "",
    entry.kind === "filter" ? (known.cleaned[entry.what ?? ""] ?? "") : "",
    entry.kind === "feed" ? (LEFT[entry.what ?? ""] ?? entry.what) : "",
    ["added", "taken", "experiment", "source", "light"].includes(entry.kind) ? entry.what : "",
    entry.litres == null ? "" : units.text(entry.litres, "volume"),
    entry.share == null ? "" : units.text(entry.share, "share"),
    entry.amount == null ? "" : amount(entry.amount, entry.kind, entry.what ?? ""),
    entry.until ? `until ${entry.until}` : "",
  ].filter(Boolean);
  return `${kind}${parts.length ? ` ${parts.join(", ")}` : ""}${note}`;
}

function amount(value: number, kind: string, what: string): string {
  if (kind === "arrival" || kind === "death") return String(value);
  const unit = what === "salt" || what === "buffer" ? "g" : "g or mL";
  return `${Number(value.toPrecision(3))} ${unit}`;
}

/** Days as headings: today, yesterday, or the date. */
export function dayWords(iso: string, now = new Date()): string {
  const day = new Date(iso);
  const apart = Math.round((startOf(now) - startOf(day)) / 86_400_000);
  if (apart === 0) return "today";
  if (apart === 1) return "yesterday";
  return day.toLocaleDateString([], { weekday: "short", day: "numeric", month: "long", year: "numeric" });
}

const startOf = (at: Date): number => new Date(at.getFullYear(), at.getMonth(), at.getDate()).getTime();
