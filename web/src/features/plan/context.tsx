import { createContext, useContext, useSyncExternalStore } from "react";
import type { Entry, Library, Plan, Sentence, Sheet } from "@/api/client";
import { entryPath, valueAt } from "@/lib/paths";
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

export function useSession(): SessionState {
  const { session } = usePlanInUse();
  return useSyncExternalStore(session.subscribe, session.snapshot);
}

/** The sheet; stages are shown once there is one. */
export function useSheet(): Sheet {
  const { sheet } = useSession();
  if (!sheet) throw new Error("a stage was shown without a sheet");
  return sheet;
}

interface Field {
  entry: Entry;
  value: unknown;
  fault: Sentence | undefined;
  change: (value: unknown) => void;
}

/** One enterable value: its words and limits, what it is now, what is wrong with it, how to change it. */
export function useField(path: string): Field {
  const { session, library } = usePlanInUse();
  const { plan, faults } = useSession();
  const entry = library.entries[entryPath(path)];
  if (!entry) throw new Error(`nothing can be entered at ${path}`);
  return {
    entry,
    value: valueAt(plan, path),
    fault: faults[path],
    change: (value) => session.edit({ [path]: value }),
  };
}

export function usePlan(): Plan {
  return useSession().plan;
}
