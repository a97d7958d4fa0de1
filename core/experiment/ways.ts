import * as yup from "yup";
import { CUE_KINDS, PRESSURE_PROFILES } from "../cues";
import { REINFORCERS, type WayChange } from "../ladder";
import { isOneOf, keysOf } from "../typed";
import { TRY_QUESTIONS, type TryWays } from "./try-both";

/** What the two ways may differ in, as a form asks it. */
export const WAY_PARTS = ["reinforcer", "cue", "profile", "zone", "kit"] as const;
export type WayPart = (typeof WAY_PARTS)[number];

/** Each part in words, with what may be chosen; null where the yard's own list stands. */
export const WAY_PART_FACTS: Readonly<Record<WayPart, { readonly words: string; readonly values: readonly string[] | null }>> = {
  reinforcer: { words: "what a right answer earns", values: REINFORCERS },
  cue: { words: "what it is asked with", values: CUE_KINDS },
  profile: { words: "how the ask is made", values: PRESSURE_PROFILES },
  zone: { words: "where in the place", values: null },
  kit: { words: "the kit in hand", values: null },
};

const REINFORCER_WORDS = { food: "food", scratch: "a scratch", rest: "a rest", away: "going away" } as const;
/** A value of a part in words. @example wayValueWords("reinforcer", "scratch") // "a scratch" */
export const wayValueWords = (part: WayPart, value: string): string =>
  part === "reinforcer" ? (isOneOf(keysOf(REINFORCER_WORDS), value) ? REINFORCER_WORDS[value] : value) : value;

const wayChange = yup
  .object({
    reinforcer: yup.string().oneOf(REINFORCERS),
    cue: yup.string().oneOf(CUE_KINDS),
    profile: yup.string().oneOf(PRESSURE_PROFILES),
    zone: yup.string().trim().min(1).max(100),
    kit: yup.string().trim().min(1).max(100),
  })
  .noUnknown()
  .strict();
const tryWays = yup.object({ A: wayChange.required(), B: wayChange.required() }).noUnknown().strict().required();

const NOTHING: TryWays = { A: {}, B: {} };

/**
 * What the ways of a kept experiment change. One begun before that was kept
 * has the words of a question alone: they say it where they are unchanged.
 * What cannot be read changes nothing.
 * @example tryWaysOf(null, "food", "a scratch").B // { reinforcer: "scratch" }
 */
export function tryWaysOf(kept: string | null, a: string, b: string): TryWays {
  if (kept === null) return TRY_QUESTIONS.find((one) => one.a === a && one.b === b)?.ways ?? NOTHING;
  try {
    return tryWays.validateSync(JSON.parse(kept)) as TryWays;
  } catch {
    return NOTHING;
  }
}

/** The ways a form asks for. @example waysFrom("reinforcer", "food", "rest") // { A: { reinforcer: "food" }, B: { reinforcer: "rest" } } */
export const waysFrom = (part: WayPart | "", a: string, b: string): TryWays =>
  part === "" ? NOTHING : { A: { [part]: a } as WayChange, B: { [part]: b } as WayChange };
