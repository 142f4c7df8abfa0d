import type { FieldFault } from "@/api/client";
import { entryPath } from "@/lib/document/paths";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { useUnits } from "@/ui/units";
import { useEdited, useEditing } from "./context";

/** What is wrong with a field, and the nearest value that works, to be set at once. */
export function FaultSays({ fault, set }: { fault: FieldFault; set: (nearest: unknown) => void }) {
  const { library } = useEditing();
  const units = useUnits();
  const { nearest } = fault;
  const entry = library.entries[entryPath(fault.path)];
  if (nearest == null || !entry) return <Says sentence={fault.sentence} />;
  const words =
    typeof nearest === "boolean"
      ? `${entry.label}: ${nearest ? "yes" : "no"}`
      : units.text(nearest, entry.kind);
  return (
    <>
      <Says sentence={fault.sentence} />{" "}
      <Button look="word" aria-label={`Set ${entry.label} to ${words}`} onClick={() => set(nearest)}>
        set {words}
      </Button>
    </>
  );
}

/** The fault of a whole list or curve, said once where its rows stand. */
export function FaultOf({ path }: { path: string }) {
  const { session } = useEditing();
  const fault = useEdited(({ faults }) => faults[path]);
  if (!fault) return null;
  return (
    <p role="alert" className="text-sm text-short">
      <FaultSays fault={fault} set={(nearest) => session.edit({ [path]: nearest })} />
    </p>
  );
}
