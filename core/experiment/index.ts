export { earlierBlockValues, triedBlocks } from "./blocks";
export { type DueTry, dueTry, type PackTry, wayOfArm } from "./due";
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
  tryResult,
  valueWords,
} from "./try-both";
