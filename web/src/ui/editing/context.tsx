import { createContext, useContext, useSyncExternalStore } from "react";
import type { Entry, FieldFault, Library } from "@/api/client";
import type { DocumentState } from "@/lib/document/documentSession";
import type { Draft } from "@/lib/document/drafts";
import { isoDay } from "@/lib/shown/days";
import { entryPath, valueAt } from "@/lib/document/paths";
import { dayTold, withTold } from "@/lib/document/told";

/** The session of any document, as fields and top line need it. */
export interface EditedSession {
  state: DocumentState<object>;
  subscribe: (listener: () => void) => () => void;
  edit(changes: Record<string, unknown>): void;
  replace(content: object): void;
  step(direction: "undo" | "redo"): Promise<void>;
  save(): Promise<void>;
  reload(): Promise<void>;
  takeOver(): Promise<void>;
  takeUp(draft: Draft<object>): void;
  forget(draft: Draft<object>): void;
}

export interface Editing {
  session: EditedSession;
  library: Library;
}

export const EditingContext = createContext<Editing | null>(null);

export function useEditing(): Editing {
  const value = useContext(EditingContext);
  if (!value) throw new Error("EditingContext is missing");
  return value;
}

/** One part of the document's state: what shows it is drawn anew only when that part changes. */
export function useEdited<Part>(part: (state: DocumentState<object>) => Part): Part {
  const { session } = useEditing();
  return useSyncExternalStore(session.subscribe, () => part(session.state));
}

interface Field {
  entry: Entry;
  value: unknown;
  /** The day it was read on, "" where none is known; null where nobody told it. */
  told: string | null;
  fault: FieldFault | undefined;
  change: (value: unknown) => void;
}

/** Where a document keeps what its keeper told. */
const TOLD = "told.told_on";

/** What a document's keeper told; null for one that does not keep it. */
export const toldOf = (content: object): string[] | null =>
  (content as { told?: { told_on?: string[] } }).told?.told_on ?? null;

/** One enterable value: its words and limits, what it is now, what is wrong with it, how to change it. */
export function useField(path: string): Field {
  const { session, library } = useEditing();
  const value = useEdited(({ content }) => valueAt(content, path));
  const fault = useEdited(({ faults }) => faults[path]);
  const told = useEdited(({ content }) => dayTold(toldOf(content) ?? [], path));
  const entry = library.entries[entryPath(path)];
  if (!entry) throw new Error(`nothing can be entered at ${path}`);
  const change = (value: unknown) => {
    const rows = entry.given === "setting" || entry.given === "bought" ? null : toldOf(session.state.content);
    session.edit({ [path]: value, ...(rows && { [TOLD]: withTold(rows, path, isoDay(new Date())) }) });
  };
  return { entry, value, told, fault, change };
}
