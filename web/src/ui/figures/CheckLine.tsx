import { memo } from "react";
import type { Check, Remedy } from "@/api/client";
import { RemedyLine } from "./RemedyLine";
import { Says, type OpenFigure } from "./Says";
import { stateWord, Tube } from "./Tube";

interface CheckLineProps {
  check: Check;
  open: OpenFigure;
  use: (changes: Remedy["changes"]) => void;
}

/** A check: its tube, why it stands so, by how much, and what mends it. */
export const CheckLine = memo(function CheckLine({ check, open, use }: CheckLineProps) {
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
          <Says sentence={check.reason} open={open} />
        </p>
        {check.remedies.length > 0 && (
          <ul aria-label={`Ways out: ${check.label}`} className="mt-1.5 grid gap-0.5">
            {check.remedies.map((remedy, i) => (
              <li key={i}>
                <RemedyLine remedy={remedy} use={use} />
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
