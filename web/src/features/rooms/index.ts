export { RoomPage } from "./RoomPage";
export { RoomsPage } from "./RoomsPage";
