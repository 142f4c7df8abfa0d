import { Redo2, Undo2 } from "lucide-react";
import { memo, type ReactNode } from "react";
import { useEdited, useEditing } from "./context";
import type { Saving } from "@/lib/document/documentSession";
import { Unkept } from "./Unkept";

interface TopLineProps {
  /** What the name is of. */
  label: string;
  /** What else stands before whether it is saved. */
  summary?: ReactNode;
  children?: ReactNode;
}

/** Where I am, whether it is saved, undo and redo; and what to do about edits that are not. */
export const TopLine = memo(function TopLine({ label, summary, children }: TopLineProps) {
  const { session } = useEditing();
  const name = useEdited(({ content }) => String((content as { name?: string }).name ?? ""));
  const fault = useEdited((state) => state.faults.name);
  const saving = useEdited((state) => state.saving);
  const canUndo = useEdited((state) => state.canUndo);
  const canRedo = useEdited((state) => state.canRedo);
  return (
    <header className="px-4 pt-3 pb-1 sm:px-6">
      <div className="flex min-h-9 flex-wrap items-center gap-x-4 pr-44">
        <h1 className="sr-only">{name}</h1>
        <input
          aria-label={label}
          aria-invalid={fault ? true : undefined}
          value={name}
          maxLength={80}
          onChange={(event) => session.edit({ name: event.target.value })}
          className="field-sizing-content max-w-[60vw] min-w-24 border-b border-transparent bg-transparent text-xl font-semibold hover:border-line focus:border-edge focus:outline-none"
        />
        <Status saving={saving} summary={summary} />
        <span className="flex">
          <Step label="Undo" allowed={canUndo || saving !== "saved"} run={() => void session.step("undo")}>
            <Undo2 size={17} />
          </Step>
          <Step label="Redo" allowed={canRedo} run={() => void session.step("redo")}>
            <Redo2 size={17} />
          </Step>
          {children}
        </span>
      </div>
      <Unkept />
    </header>
  );
});

function Status({ saving, summary }: { saving: Saving; summary: ReactNode }) {
  const revision = useEdited((state) => state.revision);
  const words = {
    saved: `revision ${revision}, saved`,
    unsaved: "saving…",
    saving: "saving…",
    away: "not saved: no server",
    waiting: "not saved: something to mend",
    stale: "not saved: changed elsewhere",
    refused: "not saved",
  }[saving];
  return (
    <p role="status" className="text-sm text-quiet">
      {summary}
      <span className={["saved", "unsaved", "saving"].includes(saving) ? "" : "text-short"}>{words}</span>
    </p>
  );
}

interface StepProps {
  label: string;
  allowed: boolean;
  run: () => void;
  children: ReactNode;
}

function Step({ label, allowed, run, children }: StepProps) {
  return (
    <button
      type="button"
      aria-label={label}
      disabled={!allowed}
      onClick={run}
      className="grid size-9 place-items-center text-quiet hover:text-ink disabled:opacity-35 pointer-coarse:size-11"
    >
      {children}
    </button>
  );
}
