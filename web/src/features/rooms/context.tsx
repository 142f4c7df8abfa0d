import type { Room, RoomSheet } from "@/api/client";
import { computedContext } from "@/ui/editing/computed";
import type { RoomSession, RoomState } from "./session";

interface Picked {
  /** The tank that was picked in the drawing, by its number. */
  picked: number | null;
  pick: (tank: number | null) => void;
}

export const {
  Context: RoomContext,
  useInUse: useRoomInUse,
  useState: useRoomState,
  useSheet: useRoomSheet,
  useDocument: useRoom,
} = computedContext<Room, RoomSheet, RoomState, RoomSession, Picked>();
