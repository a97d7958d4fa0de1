export { earlierBlockValues, triedBlocks } from "./blocks";
export { type DueTry, dueTry, type PackTry, tryingWords, wayOfArm } from "./due";
export { endTrySchema, type TryBothInput, tryBothSchema } from "./form";
export { type Arm, BLOCKS, beginnings, drawOrder, MOST_ALIKE, ordersOf, type WeighedOrder } from "./orders";
export { type Promised, promiseOf } from "./promise";
export { type RandomisationTest, randomisationTest } from "./randomisation";
export {
  COUNTED,
  COUNTED_WORDS,
  type Counted,
  TRY_CALLED_AT,
  TRY_DEFAULTS,
  TRY_QUESTIONS,
  type TriedBlock,
  type TryBoth,
  type TryQuestion,
  type TryResult,
  type TryWays,
  tryResult,
  valueWords,
} from "./try-both";
export { tryWaysOf, WAY_PART_FACTS, WAY_PARTS, type WayPart, waysFrom, wayValueWords } from "./ways";
