import { asked, client } from "@/api/client";
import { AskedSlip } from "@/ui/figures/AskedSlip";
import { useRoomInUse, useRoomState } from "./context";

/** The working of one figure of the room as it is now. */
export function RoomSlip({ figure, close }: { figure: string; close: () => void }) {
  const { session } = useRoomInUse();
  const room = useRoomState(({ sheetOf, content }) => sheetOf ?? content);
  return (
    <AskedSlip
      figure={figure}
      of={["room", room]}
      ask={(question, signal) =>
        asked(client.POST("/api/room/working", { body: { ...question, room }, signal }))
      }
      use={(changes) => session.edit(changes)}
      close={close}
    />
  );
}
