import type { CuePhase } from "../cues";
import type { MasteryRule } from "../mastery";
import type { Strand, StrandValue } from "../strands";

export const METHODS = ["pressure-release", "marker-food", "combined"] as const;
/** How the horse is taught. It chooses buttons and words, never the arithmetic. */
export type Method = (typeof METHODS)[number];

/** Which met answers earn their reinforcer. */
export type Schedule = { readonly kind: "every" } | { readonly kind: "fixed"; readonly ratio: number };

export const OFFER_RULES = ["reinforce", "ignore", "settle"] as const;
/** What an answer nobody asked for earns. */
export type OfferRule = (typeof OFFER_RULES)[number];

/** One rung: a value for every strand of the ladder, by strand id. */
export interface Rung {
  readonly values: Readonly<Record<string, StrandValue>>;
}

/** One version of a plan for one horse and one behaviour. */
export interface LadderPlan {
  readonly method: Method;
  readonly strands: readonly Strand[];
  readonly rungs: readonly Rung[];
  readonly phases: readonly CuePhase[];
  /** The longest an ask goes on before the horse is helped, in seconds. */
  readonly maximumSeconds: number;
  readonly mastery: MasteryRule;
  readonly schedule: Schedule;
  readonly offers: OfferRule;
  /** The number strand whose value is counted in each trial, or null. */
  readonly workingStrandId: string | null;
  /** Repetitions planned for a block. */
  readonly plannedRepetitions: number;
}

export const FEWEST_RUNGS = 2;
export const MOST_RUNGS = 8;
