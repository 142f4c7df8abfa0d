import { Redo2, Undo2 } from "lucide-react";
import { Button } from "@/ui/controls";
import { useUnits } from "@/ui/units";
import { BuildMenu } from "./BuildMenu";
import { usePlanInUse, useSession } from "./context";
import type { SessionState } from "./session";

/** Where I am, whether it is saved, undo and redo; and what to do when another tab was faster. */
export function TopLine() {
  const { session } = usePlanInUse();
  const state = useSession();
  const fault = state.faults.name;
  return (
    <header className="px-4 pt-3 pb-1 sm:px-6">
      <div className="flex min-h-9 flex-wrap items-center gap-x-4 pr-44">
        <h1 className="sr-only">{state.plan.name}</h1>
        <input
          aria-label="Name of this system"
          aria-invalid={fault ? true : undefined}
          value={state.plan.name}
          maxLength={80}
          onChange={(event) => session.edit({ name: event.target.value })}
          className="field-sizing-content max-w-[60vw] min-w-24 border-b border-transparent bg-transparent text-xl font-semibold hover:border-line focus:border-edge focus:outline-none"
        />
        <Status state={state} />
        <span className="flex">
          <Step
            label="Undo"
            allowed={state.canUndo || state.saving !== "saved"}
            run={() => void session.step("undo")}
          >
            <Undo2 size={17} />
          </Step>
          <Step label="Redo" allowed={state.canRedo} run={() => void session.step("redo")}>
            <Redo2 size={17} />
          </Step>
          <BuildMenu />
        </span>
      </div>
      {state.saving === "stale" && (
        <div
          role="alert"
          className="mt-2 flex flex-wrap items-center gap-3 border-l-3 border-short py-1 pl-3"
        >
          <span>This plan was changed in another tab meanwhile. Nothing of either is lost.</span>
          <Button onClick={() => void session.takeOver()}>Keep mine, on top of it</Button>
          <Button onClick={() => void session.reload()}>Discard mine, show the other</Button>
        </div>
      )}
      {state.saving === "away" && (
        <p role="alert" className="mt-2 border-l-3 border-short py-1 pl-3">
          The server does not answer. Your edits are kept here and saved as soon as it is back; leave this
          page open.
        </p>
      )}
    </header>
  );
}

function Status({ state }: { state: SessionState }) {
  const units = useUnits();
  const water = state.sheet?.figures.real_volume_l?.value;
  const words = {
    saved: `revision ${state.revision}, saved`,
    unsaved: "saving…",
    saving: "saving…",
    away: "not saved: no server",
    waiting: "not saved: something to mend",
    stale: "not saved: changed elsewhere",
  }[state.saving];
  return (
    <p role="status" className="text-sm text-quiet">
      {water != null && `${units.text(water, "volume")} real water · `}
      {state.monthsAhead != null &&
        `animals ${state.monthsAhead === 0 ? "at today’s size" : `in ${units.text(state.monthsAhead, "months")}`} · `}
      <span className={["saved", "unsaved", "saving"].includes(state.saving) ? "" : "text-short"}>
        {words}
      </span>
    </p>
  );
}

interface StepProps {
  label: string;
  allowed: boolean;
  run: () => void;
  children: React.ReactNode;
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
