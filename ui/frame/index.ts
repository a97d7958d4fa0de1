export { Frame } from "./frame";
export { KNOTS, type KnotKey } from "./knots";
export { Mark } from "./mark";
export { RoomNav } from "./room-nav";
export { beginTour, type TourStop } from "./tour";
