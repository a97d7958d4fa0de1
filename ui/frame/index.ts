export { Frame, Mark } from "./frame";
export { KNOTS, type KnotKey } from "./knots";
