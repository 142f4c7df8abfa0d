import { useNavigate } from "@tanstack/react-router";
import { useCallback } from "react";
import { Bench } from "@/ui/editing/Bench";
import { RootSlip } from "@/ui/root/RootSlip";
import { ToSettle } from "@/ui/figures/ToSettle";
import { useRoom, useRoomInUse, useRoomState } from "./context";
import { Elevation } from "./drawing/Elevation";
import { FloorPlan } from "./drawing/FloorPlan";
import { PickedTank } from "./PickedTank";
import { STAGES } from "./stages";

interface RoomBenchProps {
  stage: string;
  figure: string | null;
  closeFigure: () => void;
}

/** A room at work: plan and elevation at the left. */
export function RoomBench({ stage, figure, closeFigure }: RoomBenchProps) {
  const { openFigure } = useRoomInUse();
  const id = useRoomState((state) => state.id);
  const sheet = useRoomState((state) => state.sheet);
  const stale = useRoomState((state) => state.sheetOf !== state.content);
  const navigate = useNavigate();
  const toStage = useCallback(
    (key: string) => ({ to: "/rooms/$id/$stage" as const, params: { id: String(id), stage: key } }),
    [id],
  );
  const goTo = useCallback((to: string) => void navigate(toStage(to)), [navigate, toStage]);
  return (
    <Bench
      label="Name of this room"
      summary={<Summary />}
      stages={STAGES}
      stage={stage}
      figures={sheet}
      stale={stale}
      knownOnly={sheet?.tanks.length === 0}
      openFigure={openFigure}
      closeSlip={closeFigure}
      goTo={goTo}
      toStage={toStage}
      slip={figure ? <RootSlip figure={figure} close={closeFigure} /> : null}
      picture={
        <>
          <Elevation />
          <PickedTank />
          <FloorPlan />
          <div className="mt-3 hidden lg:block">
            {sheet && <ToSettle checks={sheet.checks} of="this room" to={toStage} />}
          </div>
        </>
      }
    />
  );
}

function Summary() {
  const tanks = useRoom((room) => room.places?.length ?? 0);
  const onZones = useRoom((room) => room.places?.filter(({ zone }) => Number(zone) > 0).length ?? 0);
  return <>{`${onZones} tanks on the changer, ${tanks - onZones} by hand · `}</>;
}
