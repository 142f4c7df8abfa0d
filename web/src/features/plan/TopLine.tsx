import { Redo2, Undo2 } from "lucide-react";
import { memo } from "react";
import { useUnits } from "@/ui/units";
import { BuildMenu } from "./BuildMenu";
import { usePlan, usePlanInUse, useSession } from "./context";
import type { Saving } from "@/lib/documentSession";
import { Unkept } from "./Unkept";

/** Where I am, whether it is saved, undo and redo; and what to do about edits that are not. */
export const TopLine = memo(function TopLine() {
  const { session } = usePlanInUse();
  const name = usePlan((plan) => plan.name);
  const fault = useSession((state) => state.faults.name);
  const saving = useSession((state) => state.saving);
  const canUndo = useSession((state) => state.canUndo);
  const canRedo = useSession((state) => state.canRedo);
  return (
    <header className="px-4 pt-3 pb-1 sm:px-6">
      <div className="flex min-h-9 flex-wrap items-center gap-x-4 pr-44">
        <h1 className="sr-only">{name}</h1>
        <input
          aria-label="Name of this system"
          aria-invalid={fault ? true : undefined}
          value={name}
          maxLength={80}
          onChange={(event) => session.edit({ name: event.target.value })}
          className="field-sizing-content max-w-[60vw] min-w-24 border-b border-transparent bg-transparent text-xl font-semibold hover:border-line focus:border-edge focus:outline-none"
        />
        <Status saving={saving} />
        <span className="flex">
          <Step label="Undo" allowed={canUndo || saving !== "saved"} run={() => void session.step("undo")}>
            <Undo2 size={17} />
          </Step>
          <Step label="Redo" allowed={canRedo} run={() => void session.step("redo")}>
            <Redo2 size={17} />
          </Step>
          <BuildMenu />
        </span>
      </div>
      <Unkept />
    </header>
  );
});

function Status({ saving }: { saving: Saving }) {
  const units = useUnits();
  const water = useSession(({ sheet }) => sheet?.figures.real_volume_l?.value);
  const revision = useSession((state) => state.revision);
  const monthsAhead = useSession((state) => state.monthsAhead);
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
      {water != null && `${units.text(water, "volume")} real water · `}
      {monthsAhead != null &&
        `animals ${monthsAhead === 0 ? "at today’s size" : `in ${units.text(monthsAhead, "months")}`} · `}
      <span className={["saved", "unsaved", "saving"].includes(saving) ? "" : "text-short"}>{words}</span>
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
