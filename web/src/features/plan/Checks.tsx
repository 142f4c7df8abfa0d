import { useCallback } from "react";
import type { Remedy } from "@/api/client";
import { CheckLine } from "@/ui/figures/CheckLine";
import { usePlanInUse, useSheet } from "./context";

/** The checks of one stage. */
export function Checks({ stage }: { stage: string }) {
  const { session, openFigure } = usePlanInUse();
  const checks = useSheet((sheet) => sheet.checks);
  const use = useCallback((changes: Remedy["changes"]) => session.edit(changes), [session]);
  const here = checks.filter((check) => check.stage === stage);
  if (here.length === 0) return null;
  return (
    <section aria-label="Checks" className="mb-6">
      <ul className="border-t border-line">
        {here.map((check) => (
          <CheckLine key={check.key} check={check} open={openFigure} use={use} />
        ))}
      </ul>
    </section>
  );
}
