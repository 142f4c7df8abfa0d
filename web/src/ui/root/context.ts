import { createContext, useContext, useSyncExternalStore } from "react";
import type { Sheet } from "@/api/client";
import type { Root } from "@/lib/document/rootSession";
import type { EditedSession } from "@/ui/editing/context";
import type { ComputedState } from "@/lib/document/computedSession";

export type Figure = Sheet["figures"][string];

/** What any root's figures have in common. */
export interface WithFigures {
  figures: Record<string, Figure>;
}

export interface ComputedDocument extends Omit<EditedSession, "state"> {
  state: ComputedState<object, WithFigures>;
  open(): void;
  close(): void;
}

export interface RootInUse {
  root: Root;
  session: ComputedDocument;
  openFigure: (figure: string) => void;
  /** Whether figures without a number are left out, as long as there is nothing that they could be of. */
  knownOnly?: (sheet: WithFigures) => boolean;
}

export const RootContext = createContext<RootInUse | null>(null);

export function useRootInUse(): RootInUse {
  const value = useContext(RootContext);
  if (!value) throw new Error("RootContext is missing");
  return value;
}

/** One part of the document's state: what shows it is drawn anew only when that part changes. */
export function useRootState<Part>(part: (state: ComputedState<object, WithFigures>) => Part): Part {
  const { session } = useRootInUse();
  return useSyncExternalStore(session.subscribe, () => part(session.state));
}

/** A figure of the document by name; nothing where it does not apply. */
export function useFigure(name: string): Figure | undefined {
  const { knownOnly } = useRootInUse();
  return useRootState(({ sheet }) => {
    const figure = sheet?.figures[name];
    return sheet && figure?.value == null && knownOnly?.(sheet) ? undefined : figure;
  });
}
