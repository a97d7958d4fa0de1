export type { PutRightFacts, PutRightRecord } from "./facts";
export { PutRight } from "./put-right";
