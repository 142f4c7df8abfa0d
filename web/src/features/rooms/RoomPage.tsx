import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "@tanstack/react-router";
import { useEffect, useState } from "react";
import type { RoomKept } from "@/api/client";
import { libraryQuery } from "@/api/queries";
import { left } from "@/lib/document/documentSession";
import { EditingContext } from "@/ui/editing/context";
import { RoomBench } from "./RoomBench";
import { RoomContext } from "./context";
import { documentOf, readRoom, RoomSession } from "./session";

/** A room's page: reads the room, then opens a session on it. */
export function RoomPage() {
  const { id, stage } = useParams({ from: "/rooms/$id/$stage" });
  const room = useQuery({
    queryKey: ["room", Number(id)],
    queryFn: () => left(documentOf(Number(id))).then(() => readRoom(Number(id))),
    staleTime: 0,
    gcTime: 0,
  });
  if (room.isError)
    return (
      <main className="p-8" role="alert">
        <p className="mb-3">{room.error.message}</p>
        <Link to="/rooms" className="font-semibold text-edge-deep underline">
          All rooms
        </Link>
      </main>
    );
  if (!room.data || room.data.id !== Number(id)) return <main className="p-8 text-quiet">Opening…</main>;
  return <Opened key={id} room={room.data} stage={stage} />;
}

function Opened({ room, stage }: { room: RoomKept; stage: string }) {
  const library = useQuery(libraryQuery).data;
  const [session] = useState(() => new RoomSession(room));
  const [figure, setFigure] = useState<string | null>(null);
  const [picked, pick] = useState<number | null>(null);
  useEffect(() => {
    session.open();
    return () => session.close();
  }, [session]);
  if (!library) return null;
  return (
    <EditingContext value={{ session, library }}>
      <RoomContext value={{ session, openFigure: setFigure, picked, pick }}>
        <RoomBench stage={stage} figure={figure} closeFigure={() => setFigure(null)} />
      </RoomContext>
    </EditingContext>
  );
}
