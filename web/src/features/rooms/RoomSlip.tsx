import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client } from "@/api/client";
import { Slip, type Asking } from "@/ui/figures/Slip";
import { useRoomInUse, useRoomState } from "./context";

/** The working of one figure of the room as it is now. */
export function RoomSlip({ figure, close }: { figure: string; close: () => void }) {
  const { session } = useRoomInUse();
  const room = useRoomState(({ sheetOf, content }) => sheetOf ?? content);
  const [asking, setAsking] = useState<Asking>({ target: null, path: null });
  const working = useQuery({
    queryKey: ["room-working", figure, asking, room],
    queryFn: ({ signal }) => {
      const paths = asking.path ? [asking.path] : null;
      const body = { room, figure, target: asking.target, paths };
      return asked(client.POST("/api/room/working", { body, signal }));
    },
    placeholderData: keepPreviousData,
    gcTime: 0,
  });
  return (
    <Slip
      figure={figure}
      working={working.data?.figure === figure ? working.data : undefined}
      trouble={working.error?.message}
      asking={asking}
      ask={setAsking}
      use={(changes) => session.edit(changes)}
      close={close}
    />
  );
}
