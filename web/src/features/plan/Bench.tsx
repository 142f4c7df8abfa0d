import { useNavigate } from "@tanstack/react-router";
import { useQuery } from "@tanstack/react-query";
import {
  memo,
  useCallback,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from "react";
import type { Glass, Sheet } from "@/api/client";
import { systemNamesQuery } from "@/api/queries";
import { faultPlaces } from "@/lib/document/faultPlaces";
import { Button } from "@/ui/controls";
import { Glasses } from "@/ui/figures/Glasses";
import { Says } from "@/ui/figures/Says";
import { SectionDrawing } from "@/ui/section/SectionDrawing";
import { StageLine } from "@/ui/StageLine";
import { useShortcuts } from "@/ui/shortcuts";
import { usePlanInUse, useSession, useSheet } from "./context";
import { Problem } from "./Problem";
import { STAGES } from "./stages";
import { ToSettle } from "@/ui/figures/ToSettle";
import { Summary } from "./Summary";
import { TopLine } from "@/ui/editing/TopLine";
import { Assumed } from "./Assumed";
import { BuildMenu } from "./BuildMenu";
import { SettleDialog } from "./settle/SettleDialog";
import { RootSlip } from "@/ui/root/RootSlip";

interface BenchProps {
  stage: string;
  figure: string | null;
  closeFigure: () => void;
}

/** The section, the stage in work, the slip when one is open, and the glasses below. */
export function Bench({ stage, figure, closeFigure }: BenchProps) {
  const { session, openFigure } = usePlanInUse();
  const id = useSession((state) => state.id);
  // The stage's numbers come first; what is drawn of all of it follows a moment later.
  const sheet = useDeferredValue(useSession((state) => state.sheet));
  const problem = useSession((state) => state.problem);
  const faults = useSession((state) => state.faults);
  const months_ahead = useSession((state) => state.monthsAhead);
  const navigate = useNavigate();
  const systems = useQuery(systemNamesQuery).data ?? [];
  const [settling, setSettling] = useState(false);
  const opener = useRef<Element | null>(null);
  const goTo = useCallback(
    (to: string) => void navigate({ to: "/systems/$id/$stage", params: { id: String(id), stage: to } }),
    [navigate, id],
  );
  const toStage = useCallback(
    (key: string) => ({ to: "/systems/$id/$stage" as const, params: { id: String(id), stage: key } }),
    [id],
  );
  const neighbour = (step: number) => {
    const at = systems.findIndex((system) => system.id === id);
    const next = systems[(at + step + systems.length) % systems.length];
    if (next) void navigate({ to: "/systems/$id/$stage", params: { id: String(next.id), stage } });
  };
  const settle = useCallback(() => setSettling(true), []);
  const close = () => {
    closeFigure();
    if (opener.current instanceof HTMLElement) opener.current.focus();
  };
  useEffect(() => {
    if (figure) opener.current = document.activeElement;
  }, [figure]);
  useShortcuts({
    ...Object.fromEntries(STAGES.slice(0, 9).map(({ key }, i) => [String(i + 1), () => goTo(key)])),
    z: () => void session.step("undo"),
    "Shift+z": () => void session.step("redo"),
    "Ctrl+z": () => void session.step("undo"),
    "Ctrl+Shift+z": () => void session.step("redo"),
    "[": () => neighbour(-1),
    "]": () => neighbour(1),
    w: () => {
      const focused = document.activeElement?.getAttribute("data-figure");
      if (focused) openFigure(focused);
    },
    Escape: close,
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
  const setBaffle = useCallback(
    (chamber: number, cm: number) => session.edit({ [`chambers.${chamber}.baffle_cm`]: cm }),
    [session],
  );
  const wrong = useMemo(
    () =>
      problem && sheet ? faultPlaces(sheet.section, session.state.content, Object.keys(faults)) : undefined,
    [problem, sheet, faults, session],
  );
  const tabs = useMemo(() => tabsOf(sheet?.stages ?? []), [sheet?.stages]);
  const current = STAGES.find(({ key }) => key === stage) ?? STAGES[0]!;
  return (
    <div className="flex min-h-screen flex-col">
      <Top settle={settle} />
      {sheet || problem ? (
        <>
          <StageLine stages={tabs} current={current.key} to={toStage} />
          <div
            className={`grid flex-1 content-start ${figure ? "lg:grid-cols-[minmax(0,1fr)_440px]" : sheet ? "lg:grid-cols-2" : "max-w-3xl"}`}
          >
            {sheet && (
              <div className={`px-4 pt-4 sm:px-6 lg:sticky lg:top-0 lg:self-start ${figure ? "hidden" : ""}`}>
                <SectionDrawing
                  section={sheet.section}
                  dimensions
                  pick={goTo}
                  setBaffle={setBaffle}
                  wrong={wrong}
                  className={`mb-3 w-full ${sheet.section.sump ? "max-h-[62vh]" : "max-h-[40vh]"}`}
                />
                <div className={`hidden lg:block ${problem ? "opacity-45" : ""}`}>
                  <ToSettle checks={sheet.checks} of="this plan" to={toStage} settle={settle} />
                  <Assumed />
                </div>
              </div>
            )}
            <InWork>
              <StageInWork stage={current} />
            </InWork>
            {figure && <RootSlip figure={figure} close={close} beside={{ months_ahead }} />}
          </div>
          {sheet && (
            <footer className="sticky bottom-12 z-10 border-t border-line bg-paper sm:bottom-0">
              <div className={problem ? "opacity-60" : ""}>
                <Glasses glasses={sheet.glasses} pick={pickGlass} />
              </div>
            </footer>
          )}
        </>
      ) : (
        <main className="p-8 text-quiet">Computing…</main>
      )}
      <SettleDialog open={settling} onOpenChange={setSettling} />
    </div>
  );
}

const tabsOf = (stages: Sheet["stages"]) =>
  STAGES.map(({ key, label }) => ({
    key,
    label,
    state: stages.find((known) => known.key === key)?.state ?? null,
  }));

const Top = memo(function Top({ settle }: { settle: () => void }) {
  const short = useSheet((sheet) => sheet.checks.some(({ state }) => state === "short"));
  const more = useMemo(
    () => (
      <>
        {short && (
          <Button className="lg:hidden" onClick={settle}>
            Settle it
          </Button>
        )}
        <BuildMenu />
      </>
    ),
    [short, settle],
  );
  return (
    <TopLine label="Name of this system" summary={SUMMARY}>
      {more}
    </TopLine>
  );
});

const SUMMARY = <Summary />;

/** What stands beside the drawing: busy while its numbers are of an older plan. */
function InWork({ children }: { children: ReactNode }) {
  const stale = useSession((state) => state.sheetOf !== state.content);
  return (
    <main className="min-w-0 px-4 pt-4 pb-6 sm:px-6" aria-busy={stale}>
      {children}
    </main>
  );
}

const StageInWork = memo(function StageInWork({ stage }: { stage: (typeof STAGES)[number] }) {
  const problem = useSession((state) => state.problem);
  const faults = useSession((state) => state.faults);
  return (
    <>
      <h2 className="mb-1 text-2xl font-semibold">{stage.label}</h2>
      <div className={problem ? "opacity-45" : ""}>
        <Result stage={stage.key} />
      </div>
      {problem && <Problem problem={problem} faults={Object.values(faults)} stage={stage} />}
      <stage.Stage />
      <Assumed className="lg:hidden" />
    </>
  );
});

function Result({ stage }: { stage: string }) {
  const { openFigure } = usePlanInUse();
  const result = useSheet((sheet) => sheet.stages.find(({ key }) => key === stage)?.result);
  if (!result) return null;
  return (
    <p className="mb-4 text-lg leading-snug">
      <Says sentence={result} open={openFigure} />
    </p>
  );
}
