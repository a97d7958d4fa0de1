export { Limits } from "./limits";
export type { ShownRestriction } from "./shown";
