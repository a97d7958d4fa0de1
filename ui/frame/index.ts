export { Frame } from "./frame";
export { KNOTS, type KnotKey } from "./knots";
export { Mark } from "./mark";
export { beginTour, type TourStop } from "./tour";
