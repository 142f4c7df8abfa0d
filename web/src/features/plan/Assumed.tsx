import { isoDay } from "@/lib/shown/days";
import { withTold } from "@/lib/document/told";
import { Button } from "@/ui/controls";
import { NumberField } from "@/ui/editing/fields";
import { useUnits } from "@/ui/units";
import { usePlanInUse, useSheet } from "./context";

/** What this plan assumes, what decides most first: each confirmed by one press, or put right. */
export function Assumed({ className = "" }: { className?: string }) {
  const rows = useSheet((sheet) => sheet.assumed);
  const { session } = usePlanInUse();
  const units = useUnits();
  if (rows.length === 0) return null;
  const confirm = (path: string) => {
    const told = session.state.content.told?.told_on ?? [];
    session.edit({ "told.told_on": withTold(told, path, isoDay(new Date())) });
  };
  const term = ({ value, kind }: { value: string | number; kind: string }) =>
    typeof value === "number" ? units.text(value, kind) : value;
  return (
    <section aria-label="What this plan assumes" className={className}>
      <h2 className="mt-3 mb-1 text-sm font-semibold">It holds if this is so</h2>
      <ul>
        {rows.map((row, i) => (
          <li key={row.path} className="border-b border-line/70 py-1">
            <div className="flex flex-wrap items-center gap-x-3">
              <span className="min-w-0 flex-1">{row.label}</span>
              <NumberField bare path={row.path} label={`Assumption ${i + 1}`} />
              <Button look="word" aria-label={`So it is: ${row.label}`} onClick={() => confirm(row.path)}>
                so it is
              </Button>
            </div>
            <p className="text-sm text-quiet">
              usually {term(row.low)} to {term(row.high)}; decides {row.decides.slice(0, 3).join(", ")}
              {row.decides.length > 3 && ` and ${row.decides.length - 3} more`}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
