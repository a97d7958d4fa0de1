import type * as z from "zod";
import type { masteryRuleDocument } from "./document";

/** As its document says it. */
export type MasteryRule = z.infer<typeof masteryRuleDocument>;

/** The least and the most of every number of a rule. */
export const RULE_BOUNDS = {
  /** Trials of a rule by shares. */
  shareOf: [1, 12],
  runLength: [1, 20],
  targetShare: [0.05, 0.99],
  confidence: [0.5, 0.999],
  leastTrials: [1, 50],
  days: [1, 5],
} as const satisfies Readonly<Record<string, readonly [least: number, most: number]>>;

/** On how many different days a rule is to hold. @example daysWanted({ kind: "first-clean" }) // 1 */
export const daysWanted = ({ days }: MasteryRule): number => days ?? 1;

/**
 * Nine of the last ten. Chosen for the worst of four kinds of horse, all
 * invented: with eight of ten, the common practice, a third of those that lose by
 * failure never get up a ladder, and others save a fifth of the asks. On horses
 * that nothing can spoil eight of ten would do (the study stands in docs/measures.md).
 */
export const DEFAULT_MASTERY_RULE: MasteryRule = { kind: "share", met: 9, of: 10, window: "moving" };

/** One trial as a mastery rule sees it, oldest first in a list. */
export interface MasteryTrial {
  readonly met: boolean;
  /** Met at phase 1 with the ease the rung asks for. */
  readonly clean: boolean;
  /** Which block it belongs to: the block window never spans two. */
  readonly blockKey: string;
  /** Whether it was said to be soft or better, or not; left out where nobody said. Only a rule over days looks at it. */
  readonly soft?: boolean;
  /** Milliseconds since 1970; only a rule that asks for different days looks at it. */
  readonly wallMs: number;
}

/**
 * Trials as a rule over days counts them: work that asks for several days can
 * hurt, so only an answer that was said to be soft counts as met. What nobody
 * said of is not counted for it.
 * @example calmOnly(trials) // 2 of them
 */
export const calmOnly = (trials: readonly MasteryTrial[]): MasteryTrial[] =>
  trials.map((trial) => (trial.soft === true ? trial : { ...trial, met: false, clean: false }));

/** How far a rule has come. `needed` says in words what is still wanted. */
export interface MasteryProgress {
  readonly passed: boolean;
  /** Trials met among those the rule looks at. */
  readonly met: number;
  /** Trials the rule looks at. */
  readonly of: number;
  /** The share or chance the rule compares, where it has one. */
  readonly level: number | null;
  readonly needed: string;
  /** The rule holds today, and wants another day; nothing more is to be had from it now. */
  readonly enoughToday?: true;
  /** On how many days it held, of how many that are wanted; left out where one is enough. */
  readonly days?: { readonly shown: number; readonly wanted: number };
}

/** The rule in the trainer's words. @example masterySentence({ kind: "run", length: 3 }) // "3 in a row" */
export function masterySentence(rule: MasteryRule): string {
  const days = daysWanted(rule);
  return days > 1 ? `${onOneDay(rule)}, on ${days} days` : onOneDay(rule);
}

function onOneDay(rule: MasteryRule): string {
  switch (rule.kind) {
    case "share":
      return rule.window === "moving" ? `${rule.met} of the last ${rule.of}` : `${rule.met} of ${rule.of} in a block`;
    case "run":
      return `${rule.length} in a row`;
    case "posterior":
      return `${Math.round(rule.confidence * 100)} % sure it gets it at least ${Math.round(rule.target * 100)} times in 100`;
    case "first-clean":
      return "first clean one, then stop";
  }
}
