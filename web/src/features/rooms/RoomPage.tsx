import { useParams } from "@tanstack/react-router";
import { useState } from "react";
import type { Room, RoomKept, RoomSheet } from "@/api/client";
import { RootSession } from "@/lib/document/rootSession";
import { OpenedRoot, RootPage } from "@/ui/root/RootPage";
import type { WithFigures } from "@/ui/root/context";
import { RoomBench } from "./RoomBench";
import { RoomContext } from "./context";
import { ROOM } from "./session";

const ALL = { to: "/rooms", label: "All rooms" } as const;
const noTanks = (sheet: WithFigures) => (sheet as RoomSheet).tanks.length === 0;

/** A room's page. */
export function RoomPage() {
  const { id, stage } = useParams({ from: "/rooms/$id/$stage" });
  return (
    <RootPage<RoomKept> root={ROOM} id={Number(id)} all={ALL}>
      {(room) => <Opened key={room.id} room={room} stage={stage} />}
    </RootPage>
  );
}

function Opened({ room, stage }: { room: RoomKept; stage: string }) {
  const [session] = useState(() => new RootSession<Room, RoomSheet>(ROOM, room));
  const [picked, pick] = useState<number | null>(null);
  return (
    <OpenedRoot root={ROOM} session={session} knownOnly={noTanks}>
      {(figure, openFigure, closeFigure) => (
        <RoomContext value={{ session, openFigure, picked, pick }}>
          <RoomBench stage={stage} figure={figure} closeFigure={closeFigure} />
        </RoomContext>
      )}
    </OpenedRoot>
  );
}
