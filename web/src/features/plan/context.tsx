import { createContext, useContext, useSyncExternalStore } from "react";
import type { Entry, FieldFault, Library, Plan, Sheet } from "@/api/client";
import { entryPath, valueAt } from "@/lib/paths";
import { NO_SHEET } from "./noSheet";
import type { PlanSession, SessionState } from "./session";

export interface PlanInUse {
  session: PlanSession;
  library: Library;
  openFigure: (figure: string) => void;
}

export const PlanContext = createContext<PlanInUse | null>(null);

export function usePlanInUse(): PlanInUse {
  const value = useContext(PlanContext);
  if (!value) throw new Error("PlanContext is missing");
  return value;
}

/** One part of the session: what shows it is drawn anew only when that part changes. */
export function useSession<Part>(part: (state: SessionState) => Part): Part {
  const { session } = usePlanInUse();
  return useSyncExternalStore(session.subscribe, () => part(session.state));
}

/** One part of the sheet; of an empty one where none could be made, so that the fields are in reach all the same. */
export function useSheet<Part>(part: (sheet: Sheet | typeof NO_SHEET) => Part): Part {
  return useSession(({ sheet }) => part(sheet ?? NO_SHEET));
}

export function useFigure(name: string): Sheet["figures"][string] | undefined {
  return useSheet((sheet) => sheet.figures[name]);
}

export function usePlan<Part>(part: (plan: Plan) => Part): Part {
  return useSession(({ content }) => part(content));
}

interface Field {
  entry: Entry;
  value: unknown;
  fault: FieldFault | undefined;
  change: (value: unknown) => void;
}

/** One enterable value: its words and limits, what it is now, what is wrong with it, how to change it. */
export function useField(path: string): Field {
  const { session, library } = usePlanInUse();
  const value = usePlan((plan) => valueAt(plan, path));
  const fault = useSession(({ faults }) => faults[path]);
  const entry = library.entries[entryPath(path)];
  if (!entry) throw new Error(`nothing can be entered at ${path}`);
  return {
    entry,
    value,
    fault,
    change: (value) => session.edit({ [path]: value }),
  };
}
