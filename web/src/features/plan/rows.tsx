import { Trash2 } from "lucide-react";
import type { Plan } from "@/api/client";
import { usePlan, usePlanInUse } from "./context";

type Rows = "filters" | "run" | "returns" | "chambers" | "sources" | "bags";

/** Putting rows into a part of the plan that is a list, and taking them out. */
export function useRows(section: Rows) {
  const { session } = usePlanInUse();
  const plan = usePlan();
  const rows = (plan[section] ?? []) as object[];
  const put = (next: object[]) => session.replace({ ...plan, [section]: next } as Plan);
  return {
    count: rows.length,
    add: (row: object, at = rows.length) => put([...rows.slice(0, at), row, ...rows.slice(at)]),
    remove: (at: number) => put(rows.filter((_, i) => i !== at)),
  };
}

export function Remove({ label, run, className }: { label: string; run: () => void; className?: string }) {
  return (
    <button
      type="button"
      aria-label={label}
      onClick={run}
      className={`grid size-9 shrink-0 place-items-center text-quiet hover:text-short pointer-coarse:size-11 ${className ?? ""}`}
    >
      <Trash2 size={16} />
    </button>
  );
}
