export { RoomNav } from "./room-nav";
