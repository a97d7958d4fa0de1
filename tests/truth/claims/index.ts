import { THE_WORD } from "./advice";
import type { Claim } from "./claim";
import { SHARES } from "./shares";
import { SOUND_ADVICE } from "./sound-advice";
import { SIGNS, WAITING } from "./watching";
import { WEEKS } from "./weeks";
import { PLACES, SIDES } from "./within-sessions";
import { WRONG } from "./wrong";

export type { Claim } from "./claim";
export { POOLED_AS_INDEPENDENT } from "./shares";
export { NOT_DRAWN } from "./weeks";

/** Every kind of sentence the app says from its numbers, on horses whose truth is known. */
export const CLAIMS: readonly Claim[] = [
  ...SIDES,
  ...PLACES,
  ...SHARES,
  ...WAITING,
  ...SIGNS,
  ...THE_WORD,
  ...WRONG,
  ...WEEKS,
  ...SOUND_ADVICE,
];
