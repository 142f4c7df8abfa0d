import { createContext, useContext, useSyncExternalStore } from "react";
import type { Library, Plan, Sheet } from "@/api/client";
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
