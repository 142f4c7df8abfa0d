import { useNavigate } from "@tanstack/react-router";
import { useCallback, type ReactNode } from "react";
import { Bench } from "@/ui/editing/Bench";
import { RootSlip } from "@/ui/root/RootSlip";
import { ToSettle } from "@/ui/figures/ToSettle";
import { ColonyPicture } from "./charts/ColonyPicture";
import { GrowthChart } from "./charts/GrowthChart";
import { MoneyChart } from "./charts/MoneyChart";
import { TanksChart } from "./charts/TanksChart";
import { useVentureInUse, useVentureSheet, useVentureState } from "./context";
import { STAGES } from "./stages";

interface VentureBenchProps {
  stage: string;
  figure: string | null;
  closeFigure: () => void;
}

const PICTURES: Record<string, ReactNode> = {
  colony: <ColonyPicture />,
  broods: <TanksChart />,
  sale: <GrowthChart />,
  worth: <MoneyChart />,
};

/** A venture at work: what its stage is about is drawn at the left. */
export function VentureBench({ stage, figure, closeFigure }: VentureBenchProps) {
  const { openFigure } = useVentureInUse();
  const id = useVentureState((state) => state.id);
  const sheet = useVentureState((state) => state.sheet);
  const stale = useVentureState((state) => state.sheetOf !== state.content);
  const navigate = useNavigate();
  const toStage = useCallback(
    (key: string) => ({ to: "/breeding/$id/$stage" as const, params: { id: String(id), stage: key } }),
    [id],
  );
  const goTo = useCallback((to: string) => void navigate(toStage(to)), [navigate, toStage]);
  return (
    <Bench
      label="Name of this venture"
      summary={<Summary />}
      stages={STAGES}
      stage={stage}
      figures={sheet}
      stale={stale}
      knownOnly={sheet !== null && (!sheet.home || !sheet.known_broods)}
      openFigure={openFigure}
      closeSlip={closeFigure}
      goTo={goTo}
      toStage={toStage}
      slip={figure ? <RootSlip figure={figure} close={closeFigure} /> : null}
      picture={
        <>
          {PICTURES[stage] ?? PICTURES.colony}
          <div className="mt-3 hidden lg:block">
            {sheet && <ToSettle checks={sheet.checks} of="this venture" to={toStage} />}
          </div>
        </>
      }
    />
  );
}

function Summary() {
  const home = useVentureSheet((sheet) => sheet.home);
  const colony = useVentureSheet((sheet) => sheet.colony_home);
  if (home === undefined) return null;
  if (!home) return <>no tank chosen yet · </>;
  return <>{`in tanks like ${home}${colony ? `, the colony in ${colony}` : ""} · `}</>;
}
