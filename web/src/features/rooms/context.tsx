import { createContext, useContext, useSyncExternalStore } from "react";
import type { Room, RoomSheet } from "@/api/client";
import type { RoomSession, RoomState } from "./session";

export interface RoomInUse {
  session: RoomSession;
  openFigure: (figure: string) => void;
  /** The tank that was picked in the drawing, by its number. */
  picked: number | null;
  pick: (tank: number | null) => void;
}

export const RoomContext = createContext<RoomInUse | null>(null);

export function useRoomInUse(): RoomInUse {
  const value = useContext(RoomContext);
  if (!value) throw new Error("RoomContext is missing");
  return value;
}

/** One part of the session: what shows it is drawn anew only when that part changes. */
export function useRoomState<Part>(part: (state: RoomState) => Part): Part {
  const { session } = useRoomInUse();
  return useSyncExternalStore(session.subscribe, () => part(session.state));
}

/** One part of the figures; nothing while none could be made yet. */
export function useRoomSheet<Part>(part: (sheet: RoomSheet) => Part): Part | undefined {
  return useRoomState(({ sheet }) => (sheet ? part(sheet) : undefined));
}

export function useRoom<Part>(part: (room: Room) => Part): Part {
  return useRoomState(({ content }) => part(content));
}
