import { Link } from "@tanstack/react-router";
import { memo } from "react";
import { Says } from "@/ui/figures/Says";
import { Tube } from "@/ui/figures/Tube";
import { useSession, useSheet } from "./context";

/** Under the section: every check of any stage that does not simply hold, the shortest way to it. */
export const Unsettled = memo(function Unsettled() {
  const id = useSession((state) => state.id);
  const checks = useSheet((sheet) => sheet.checks);
  const open = [
    ...checks.filter(({ state }) => state === "short"),
    ...checks.filter(({ state }) => state === "tight"),
  ];
  if (checks.every(({ state }) => state === "unknown")) return null;
  if (open.length === 0) return <p className="text-quiet">Every check of this plan holds.</p>;
  return (
    <section aria-labelledby="unsettled">
      <h2 id="unsettled" className="mb-1 text-sm font-semibold">
        To settle
      </h2>
      <ul>
        {open.map((check) => (
          <li key={check.key}>
            <Link
              to="/systems/$id/$stage"
              params={{ id: String(id), stage: check.stage }}
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
