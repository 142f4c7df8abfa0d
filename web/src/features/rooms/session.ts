import { asked, client, type Room, type RoomKept, type RoomSheet } from "@/api/client";
import { ComputedSession, type ComputedState } from "@/lib/document/computedSession";
import { opened, type Kept } from "@/lib/document/documentSession";
import { draftOf, Drafts } from "@/lib/document/drafts";

export type RoomState = ComputedState<Room, RoomSheet>;

const at = (id: number) => ({ path: { room_id: id } });

export const readRoom = (id: number): Promise<RoomKept> =>
  asked(client.GET("/api/rooms/{room_id}", { params: at(id) }));

const keeper = {
  read: async (id: number) => kept(await readRoom(id)),
  save: async (id: number, base: number, room: Room) =>
    kept(await asked(client.PUT("/api/rooms/{room_id}", { params: at(id), body: { base, room } }))),
  step: async (id: number, base: number, direction: "undo" | "redo") => {
    const given = { params: at(id), body: { base } };
    return kept(
      await asked(
        direction === "undo"
          ? client.POST("/api/rooms/{room_id}/undo", given)
          : client.POST("/api/rooms/{room_id}/redo", given),
      ),
    );
  },
};

export const documentOf = (id: number): string => `room.${id}`;

/** One room being edited: every edit is computed at once, with the systems that stand in it. */
export class RoomSession extends ComputedSession<Room, RoomSheet, RoomState> {
  constructor(room: RoomKept) {
    const drafts = new Drafts<Room>(draftOf("room", room.id, room.created));
    super({ ...opened(kept(room), drafts), sheet: null, sheetOf: null }, documentOf(room.id), keeper, drafts);
  }

  protected ask(room: Room, signal: AbortSignal): Promise<RoomSheet> {
    return asked(client.POST("/api/room/sheet", { body: { room }, signal }));
  }
}

function kept(room: RoomKept): Kept<Room> {
  return {
    id: room.id,
    content: room.room,
    revision: room.revision,
    savedAt: room.saved,
    canUndo: room.can_undo,
    canRedo: room.can_redo,
  };
}
