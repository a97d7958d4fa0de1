import type { CuePhase } from "../cues";
import { DEFAULT_MASTERY_RULE } from "../mastery";
import { strandFromCatalogue } from "../strands";
import { type LadderPlan, type Method, PLAN_DEFAULTS } from "./ladder";

const PHASES: readonly CuePhase[] = [
  { label: "body", kind: "body", profile: "rising", dwellSeconds: 3, pulsesPerMinute: null },
  { label: "point", kind: "point", profile: "rising", dwellSeconds: 3, pulsesPerMinute: null },
  { label: "touch", kind: "touch", profile: "rising", dwellSeconds: 3, pulsesPerMinute: null },
  { label: "tap", kind: "tap", profile: "rising", dwellSeconds: 3, pulsesPerMinute: null },
];

/**
 * The plan of something named on the spot: any answer to any ask first, then
 * lighter phase by phase. The trainer fills in the strands later.
 * Its cue is the plain one: that of another ladder belongs to what it asks for.
 * @param like a plan of the same horse whose method and rules are taken over, or null.
 * @example starterPlan(null) // { method: "combined", maximumSeconds: 30, holdOnWrong: true, … }
 */
export function starterPlan(like: LadderPlan | null): LadderPlan {
  const count = PHASES.length;
  const light = strandFromCatalogue("lightness", "lightness");
  const method: Method = like?.method ?? "combined";
  // Two rungs at least, also where the cue has one phase: the first a form not asked for yet.
  const form = { ...strandFromCatalogue("form", "form"), levels: ["any try", "the whole answer"] };
  const first = { values: { lightness: count, form: "any try" } };
  const rungs = Array.from({ length: count }, (_, i) => ({ values: { lightness: count - i, form: "the whole answer" } }));
  return {
    method,
    strands: [form, light],
    rungs: [first, ...rungs],
    phases: PHASES,
    maximumSeconds: like?.maximumSeconds ?? 30,
    mastery: like?.mastery ?? DEFAULT_MASTERY_RULE,
    schedule: { kind: "every" },
    ...PLAN_DEFAULTS,
    ...(like === null ? {} : { holdOnWrong: like.holdOnWrong, feeding: like.feeding }),
    offers: "reinforce",
    workingStrandId: null,
    plannedRepetitions: like?.plannedRepetitions ?? 8,
  };
}
