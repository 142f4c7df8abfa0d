import { Link, type LinkProps } from "@tanstack/react-router";
import { memo } from "react";
import type { Check } from "@/api/client";
import { Button } from "@/ui/controls";
import { Says } from "./Says";
import { Tube } from "./Tube";

interface ToSettleProps {
  checks: Check[];
  /** What all of them are of. */
  of: string;
  to: (stage: string) => Pick<LinkProps, "to" | "params">;
  /** Proposes what settles it all, where somebody can. */
  settle?: () => void;
}

/** Under the drawing: every check of any stage that does not simply hold, the shortest way to it. */
export const ToSettle = memo(function ToSettle({ checks, of, to, settle }: ToSettleProps) {
  const open = [
    ...checks.filter(({ state }) => state === "short"),
    ...checks.filter(({ state }) => state === "measure"),
    ...checks.filter(({ state }) => state === "tight"),
  ];
  if (checks.every(({ state }) => state === "unknown")) return null;
  if (open.length === 0) return <p className="text-quiet">Every check of {of} holds.</p>;
  return (
    <section aria-labelledby="unsettled">
      <div className="mb-1 flex items-center justify-between gap-3">
        <h2 id="unsettled" className="text-sm font-semibold">
          To settle
        </h2>
        {settle && open.some(({ state }) => state === "short") && <Button onClick={settle}>Settle it</Button>}
      </div>
      <ul>
        {open.map((check) => (
          <li key={check.key}>
            <Link
              {...to(check.stage)}
              hash={`check-${check.key}`}
              className="flex items-center gap-2 border-b border-line/70 py-1 hover:text-edge-deep pointer-coarse:min-h-11"
            >
              <Tube gauge={check.gauge} state={check.state} height={22} />
              <span className="flex-1">{check.label}</span>
              <span className={`text-sm ${check.state === "short" ? "text-short" : "text-quiet"}`}>
                {check.state === "tight" && "tight: "}
                <Says sentence={check.headline} />
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
});
