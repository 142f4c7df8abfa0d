import type { Room, RoomKept, RoomSheet } from "@/api/client";
import type { ComputedState } from "@/lib/document/computedSession";
import { documentsOf, RootSession, type Root } from "@/lib/document/rootSession";

export const ROOM: Root = { name: "room", part: "room", at: "/api/rooms", draftsAt: "/api/room" };

export const keptRooms = documentsOf<Room, RoomKept>(ROOM);

export type RoomState = ComputedState<Room, RoomSheet>;
export type RoomSession = RootSession<Room, RoomSheet>;
