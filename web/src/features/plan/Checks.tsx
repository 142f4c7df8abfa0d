import { memo } from "react";
import type { Check } from "@/api/client";
import { Says } from "@/ui/Says";
import { stateWord, Tube } from "@/ui/Tube";
import { usePlanInUse, useSheet } from "./context";
import { RemedyLine } from "./RemedyLine";

/** The checks of one stage: tube, reason, by how much, and what mends it. */
export function Checks({ stage }: { stage: string }) {
  const checks = useSheet((sheet) => sheet.checks);
  const here = checks.filter((check) => check.stage === stage);
  if (here.length === 0) return null;
  return (
    <section aria-label="Checks" className="mb-6">
      <ul className="border-t border-line">
        {here.map((check) => (
          <CheckLine key={check.key} check={check} />
        ))}
      </ul>
    </section>
  );
}

const CheckLine = memo(function CheckLine({ check }: { check: Check }) {
  const { openFigure } = usePlanInUse();
  return (
    <li id={`check-${check.key}`} className="flex scroll-mt-24 gap-2.5 border-b border-line py-2.5">
      <Tube gauge={check.gauge} state={check.state} height={34} />
      <div className="min-w-0 flex-1">
        <div className="flex flex-wrap items-baseline justify-between gap-x-4">
          <h3 className="font-semibold">{check.label}</h3>
          <p className={check.state === "short" ? "text-short" : "text-quiet"}>
            <span className="sr-only">{stateWord(check.state)}: </span>
            <Says sentence={check.headline} />
          </p>
        </div>
        <p className="text-sm text-quiet">
          <Says sentence={check.reason} open={openFigure} />
        </p>
        {check.remedies.length > 0 && (
          <ul aria-label={`Ways out: ${check.label}`} className="mt-1.5 grid gap-0.5">
            {check.remedies.map((remedy, i) => (
              <li key={i}>
                <RemedyLine remedy={remedy} />
              </li>
            ))}
          </ul>
        )}
        {check.caution && check.state !== "unknown" && (
          <p className="mt-1 text-sm text-brass">{check.caution}</p>
        )}
      </div>
    </li>
  );
});
