import type { FieldFault, Sentence } from "@/api/client";
import { entryPath } from "@/lib/document/paths";
import { Says } from "@/ui/figures/Says";
import { FaultSays } from "@/ui/editing/FaultSays";
import { usePlanInUse, useSession } from "./context";
import type { StagePage } from "./stages";

interface ProblemProps {
  problem: Sentence;
  faults: FieldFault[];
  stage: StagePage;
}

/** Why nothing new is computed; a fault that is entered on another stage is said here, with its way out. */
export function Problem({ problem, faults, stage }: ProblemProps) {
  const { session, library } = usePlanInUse();
  const hasSheet = useSession((state) => state.sheet !== null);
  const elsewhere = faults.filter(({ path }) => !stage.parts.includes(path.split(".")[0]!));
  const label = (path: string) => {
    const entry = library.entries[entryPath(path)];
    return entry ? `${entry.label}: ` : "";
  };
  return (
    <div role="status" className="mb-3 border-l-3 border-short pl-3">
      <p>
        <Says sentence={problem} />{" "}
        {hasSheet
          ? "The figures are the last good ones."
          : "There are no figures yet; every field can be changed."}
      </p>
      {elsewhere.map((fault) => (
        <p key={fault.path} className="text-sm text-short">
          {label(fault.path)}
          <FaultSays fault={fault} set={(nearest) => session.edit({ [fault.path]: nearest })} />
        </p>
      ))}
    </div>
  );
}
