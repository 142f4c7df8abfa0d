import type { LinkProps } from "@tanstack/react-router";
import { useCallback, type ComponentType, type ReactNode } from "react";
import type { Check, Glass, Remedy, Stage } from "@/api/client";
import { CheckLine } from "@/ui/figures/CheckLine";
import { Glasses } from "@/ui/figures/Glasses";
import { Says } from "@/ui/figures/Says";
import { useShortcuts } from "@/ui/shortcuts";
import { StageLine } from "@/ui/StageLine";
import { useEdited, useEditing } from "./context";
import { FaultSays } from "./FaultSays";
import { TopLine } from "./TopLine";

export interface BenchStage {
  key: string;
  label: string;
  Stage: ComponentType;
  /** Whether it takes the whole width, without the picture. */
  wide?: boolean;
}

interface BenchProps {
  label: string;
  summary: ReactNode;
  stages: BenchStage[];
  stage: string;
  figures: { stages: Stage[]; checks: Check[]; glasses: Glass[] } | null;
  /** The figures are of a document that has been edited since. */
  stale: boolean;
  picture: ReactNode;
  slip: ReactNode;
  closeSlip: () => void;
  openFigure: (figure: string) => void;
  goTo: (stage: string) => void;
  toStage: (stage: string) => Pick<LinkProps, "to" | "params">;
  /** Leaves out checks that are not known yet. */
  knownOnly?: boolean;
}

/** A computed document at work: drawn at the left, the stage beside it, the slip when one is open, the glasses below. */
export function Bench(props: BenchProps) {
  const { label, summary, stages, stage, figures, stale, picture, slip, openFigure, goTo, toStage } = props;
  const { session } = useEditing();
  const problem = useEdited((state) => state.problem);
  const faults = useEdited((state) => state.faults);
  useShortcuts({
    ...Object.fromEntries(stages.map(({ key }, i) => [String(i + 1), () => goTo(key)])),
    z: () => void session.step("undo"),
    "Shift+z": () => void session.step("redo"),
    w: () => {
      const focused = document.activeElement?.getAttribute("data-figure");
      if (focused) openFigure(focused);
    },
    Escape: props.closeSlip,
  });
  const pickGlass = useCallback(
    (glass: Glass) => {
      goTo(glass.stage);
      requestAnimationFrame(() =>
        document.getElementById(`check-${glass.check}`)?.scrollIntoView({ block: "center" }),
      );
    },
    [goTo],
  );
  const use = useCallback((changes: Remedy["changes"]) => session.edit(changes), [session]);
  const current = stages.find(({ key }) => key === stage) ?? stages[0]!;
  const tabs = stages.map(({ key, label: words }) => ({
    key,
    label: words,
    state: figures?.stages.find((known) => known.key === key)?.state ?? null,
  }));
  const result = figures?.stages.find(({ key }) => key === current.key)?.result;
  const checks = (figures?.checks ?? []).filter(
    (check) => check.stage === current.key && !(props.knownOnly && check.state === "unknown"),
  );
  return (
    <div className="flex min-h-screen flex-col">
      <TopLine label={label} summary={summary} />
      <StageLine stages={tabs} current={current.key} to={toStage} />
      <div
        className={`grid flex-1 content-start ${slip ? "lg:grid-cols-[minmax(0,1fr)_440px]" : current.wide ? "" : "lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]"}`}
      >
        {!current.wide && (
          <div
            className={`px-4 pt-4 sm:px-6 lg:sticky lg:top-0 lg:self-start ${slip ? "hidden" : ""} ${problem ? "opacity-45" : ""}`}
          >
            {picture}
          </div>
        )}
        <main className="min-w-0 px-4 pt-4 pb-6 sm:px-6" aria-busy={stale}>
          <h2 className="mb-1 text-2xl font-semibold">{current.label}</h2>
          {result && (
            <p className="mb-4 text-lg leading-snug">
              <Says sentence={result} open={openFigure} />
            </p>
          )}
          {problem && (
            <div role="status" className="mb-3 border-l-3 border-short pl-3">
              <p>
                <Says sentence={problem} /> The figures are the last good ones.
              </p>
              {Object.values(faults).map((fault) => (
                <p key={fault.path} className="text-sm text-short">
                  <FaultSays fault={fault} set={(nearest) => session.edit({ [fault.path]: nearest })} />
                </p>
              ))}
            </div>
          )}
          <current.Stage />
          {checks.length > 0 && (
            <section aria-label="Checks" className="mb-6">
              <ul className="border-t border-line">
                {checks.map((check) => (
                  <CheckLine key={check.key} check={check} open={openFigure} use={use} />
                ))}
              </ul>
            </section>
          )}
        </main>
        {slip}
      </div>
      {figures && (
        <footer className="print:hidden sticky bottom-12 z-10 border-t border-line bg-paper sm:bottom-0">
          <Glasses glasses={figures.glasses} pick={pickGlass} />
        </footer>
      )}
    </div>
  );
}
