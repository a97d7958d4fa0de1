export { addCounts, type Cell, type Count, cellOf, cellsOf, countPart, keyOf, NO_COUNT, oneCell, type Part, partsOf } from "./cells";
export { YARDS } from "./sentences";
export type { Dial, Row, Sentence, Yard } from "./yards";
