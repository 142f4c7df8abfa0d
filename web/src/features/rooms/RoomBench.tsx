import { useNavigate } from "@tanstack/react-router";
import { useCallback } from "react";
import type { Glass, Remedy } from "@/api/client";
import { CheckLine } from "@/ui/figures/CheckLine";
import { Glasses } from "@/ui/figures/Glasses";
import { Says } from "@/ui/figures/Says";
import { ToSettle } from "@/ui/figures/ToSettle";
import { FaultSays } from "@/ui/editing/FaultSays";
import { TopLine } from "@/ui/editing/TopLine";
import { useShortcuts } from "@/ui/shortcuts";
import { StageLine } from "@/ui/StageLine";
import { useRoom, useRoomInUse, useRoomSheet, useRoomState } from "./context";
import { Elevation } from "./drawing/Elevation";
import { FloorPlan } from "./drawing/FloorPlan";
import { PickedTank } from "./PickedTank";
import { RoomSlip } from "./RoomSlip";
import { STAGES } from "./stages";

interface RoomBenchProps {
  stage: string;
  figure: string | null;
  closeFigure: () => void;
}

/** The room drawn, the stage in work, the slip when one is open, and the glasses below. */
export function RoomBench({ stage, figure, closeFigure }: RoomBenchProps) {
  const { session, openFigure } = useRoomInUse();
  const id = useRoomState((state) => state.id);
  const sheet = useRoomState((state) => state.sheet);
  const problem = useRoomState((state) => state.problem);
  const faults = useRoomState((state) => state.faults);
  const stale = useRoomState((state) => state.sheetOf !== state.content);
  const navigate = useNavigate();
  const goTo = useCallback(
    (to: string) => void navigate({ to: "/rooms/$id/$stage", params: { id: String(id), stage: to } }),
    [navigate, id],
  );
  const toStage = useCallback(
    (key: string) => ({ to: "/rooms/$id/$stage" as const, params: { id: String(id), stage: key } }),
    [id],
  );
  useShortcuts({
    ...Object.fromEntries(STAGES.map(({ key }, i) => [String(i + 1), () => goTo(key)])),
    z: () => void session.step("undo"),
    "Shift+z": () => void session.step("redo"),
    w: () => {
      const focused = document.activeElement?.getAttribute("data-figure");
      if (focused) openFigure(focused);
    },
    Escape: closeFigure,
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
  const current = STAGES.find(({ key }) => key === stage) ?? STAGES[0]!;
  const tabs = STAGES.map(({ key, label }) => ({
    key,
    label,
    state: sheet?.stages.find((known) => known.key === key)?.state ?? null,
  }));
  const wide = current.key === "parts";
  return (
    <div className="flex min-h-screen flex-col">
      <TopLine label="Name of this room" summary={<Summary />} />
      <StageLine stages={tabs} current={current.key} to={toStage} />
      <div
        className={`grid flex-1 content-start ${figure ? "lg:grid-cols-[minmax(0,1fr)_440px]" : wide ? "" : "lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]"}`}
      >
        {!wide && (
          <div
            className={`px-4 pt-4 sm:px-6 lg:sticky lg:top-0 lg:self-start ${figure ? "hidden" : ""} ${problem ? "opacity-45" : ""}`}
          >
            <Elevation />
            <PickedTank />
            <FloorPlan />
            <div className="mt-3 hidden lg:block">
              {sheet && <ToSettle checks={sheet.checks} of="this room" to={toStage} />}
            </div>
          </div>
        )}
        <main className="min-w-0 px-4 pt-4 pb-6 sm:px-6" aria-busy={stale}>
          <h2 className="mb-1 text-2xl font-semibold">{current.label}</h2>
          <Result stage={current.key} />
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
          <Checks stage={current.key} />
        </main>
        {figure && <RoomSlip figure={figure} close={closeFigure} />}
      </div>
      {sheet && (
        <footer className="print:hidden sticky bottom-12 z-10 border-t border-line bg-paper sm:bottom-0">
          <Glasses glasses={sheet.glasses} pick={pickGlass} />
        </footer>
      )}
    </div>
  );
}

function Summary() {
  const tanks = useRoom((room) => room.places?.length ?? 0);
  const onZones = useRoom((room) => room.places?.filter(({ zone }) => Number(zone) > 0).length ?? 0);
  return <>{`${onZones} tanks on the changer, ${tanks - onZones} by hand · `}</>;
}

function Result({ stage }: { stage: string }) {
  const { openFigure } = useRoomInUse();
  const result = useRoomSheet(({ stages }) => stages.find(({ key }) => key === stage)?.result);
  if (!result) return null;
  return (
    <p className="mb-4 text-lg leading-snug">
      <Says sentence={result} open={openFigure} />
    </p>
  );
}

function Checks({ stage }: { stage: string }) {
  const { session, openFigure } = useRoomInUse();
  const checks = useRoomSheet((sheet) => sheet.checks) ?? [];
  const use = useCallback((changes: Remedy["changes"]) => session.edit(changes), [session]);
  const empty = useRoomSheet(({ tanks }) => tanks.length === 0);
  const here = checks.filter((check) => check.stage === stage && !(empty && check.state === "unknown"));
  if (here.length === 0) return null;
  return (
    <section aria-label="Checks" className="mb-6">
      <ul className="border-t border-line">
        {here.map((check) => (
          <CheckLine key={check.key} check={check} open={openFigure} use={use} />
        ))}
      </ul>
    </section>
  );
}
