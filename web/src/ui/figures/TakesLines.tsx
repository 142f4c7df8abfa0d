import type { Takes } from "@/api/client";
import { useUnits } from "@/ui/units";

/** What a plan takes: floor and water, hands and change water, electricity. */
export function TakesLines({ takes }: { takes: Takes }) {
  const units = useUnits();
  const text = (value: number, kind: string) => units.text(value, kind);
  const rows: [string, string][] = [
    ["Floor", `${text(takes.footprint_m2, "area")}, ${text(takes.litres, "volume")}`],
    ["Work", `${text(takes.work_min, "minutes")} and ${text(takes.change_l_wk, "volume_per_week")}`],
    ...(takes.pure_l_wk >= 0.5
      ? [["Purified water", text(takes.pure_l_wk, "volume_per_week")] satisfies [string, string]]
      : []),
    ["Power a year", text(takes.year_kwh, "energy")],
    ["Its price a year", text(takes.year_money, "money")],
  ];
  return (
    <dl className="text-sm">
      {rows.map(([label, words]) => (
        <div key={label} className="flex justify-between gap-3 border-b border-line/70 py-1">
          <dt className="text-quiet">{label}</dt>
          <dd className="num text-right">{words}</dd>
        </div>
      ))}
    </dl>
  );
}

/** What a change takes more or less than going without it, in words; nothing where it takes nothing. */
export function TakesMore({ takes }: { takes: Takes }) {
  const units = useUnits();
  const text = (value: number, kind: string) => units.text(value, kind);
  const parts = (
    [
      [takes.footprint_m2, "area", 0.005, ""],
      [takes.work_min, "minutes", 0.5, ""],
      [takes.change_l_wk, "volume_per_week", 0.5, ""],
      [takes.pure_l_wk, "volume_per_week", 0.5, " purified"],
      [takes.year_kwh, "energy", 0.5, ""],
    ] as const
  )
    .filter(([value, , least]) => Math.abs(value) >= least)
    .map(([value, kind, , what]) => `${value > 0 ? "+" : "−"}${text(Math.abs(value), kind)}${what}`);
  return <span className="num text-sm text-quiet">{parts.join(", ")}</span>;
}
