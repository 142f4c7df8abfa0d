import { Trash2 } from "lucide-react";
import type { ReactNode } from "react";
import { withListMoved } from "@/lib/document/told";
import { toldOf, useEdited, useEditing } from "./context";
import { FaultOf } from "./FaultSays";

/** The rows of a list of a document. */
const rowsOf = (content: object, section: string) =>
  ((content as Record<string, unknown>)[section] ?? []) as object[];

/** Putting rows into a part of a document that is a list, and taking them out; a new row starts as the library says. */
export function useRows(section: string) {
  const { session, library } = useEditing();
  const count = useEdited(({ content }) => rowsOf(content, section).length);
  const put = (change: (rows: object[]) => object[], at: number, by: 1 | -1) => {
    const { content } = session.state;
    const rows = toldOf(content);
    const told = rows && { told: { told_on: withListMoved(rows, section, at, by) } };
    session.replace({ ...content, ...told, [section]: change(rowsOf(content, section)) });
  };
  const most = library.limits[section] ?? Infinity;
  return {
    count,
    /** Why no further row can be put in; null while one can. */
    full: count >= most ? `${most} are the most there can be here.` : null,
    add: (row: object = {}, at = count) => {
      if (count < most) put((rows) => rows.toSpliced(at, 0, { ...library.new_rows[section], ...row }), at, 1);
    },
    remove: (at: number) => put((rows) => rows.toSpliced(at, 1), at, -1),
  };
}

interface AddingProps {
  /** The list that a row is added to: what is wrong with it as a whole is said here. */
  to: string;
  full: string | null;
  children: ReactNode;
}

/** What adds a row, or why none can be added any more. */
export function Adding({ to, full, children }: AddingProps) {
  const faulty = useEdited(({ faults }) => to in faults);
  if (faulty) return <FaultOf path={to} />;
  return <>{full ? <p className="text-sm text-quiet">{full}</p> : children}</>;
}

export function Remove({ label, run, className }: { label: string; run: () => void; className?: string }) {
  return (
    <button
      type="button"
      aria-label={label}
      onClick={run}
      className={`ml-auto grid size-9 shrink-0 place-items-center text-quiet hover:text-short pointer-coarse:size-11 ${className ?? ""}`}
    >
      <Trash2 size={16} />
    </button>
  );
}

/** A row of short fields in one line. */
export const LINE = "flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line/70 py-1 text-sm";

/** A word before its field, kept together when the line breaks. */
export function Worded({ words, children }: { words: string; children: ReactNode }) {
  return (
    <span className="inline-flex items-center gap-1.5">
      <span className="text-quiet">{words}</span>
      {children}
    </span>
  );
}
