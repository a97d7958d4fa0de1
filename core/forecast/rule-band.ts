import { mixedChance } from "../chance";
import { LEARNER_KINDS, LEARNER_WORDS, type LearnerKind, learnerOf } from "../learner";
import type { MasteryRule } from "../mastery";
import { DEFAULT_SETTINGS, type YardSettings } from "../settings";
import { easeThresholds } from "../word";
import { climb } from "./climb";

/** What a rule came to with one kind of horse. */
export interface KindOutcome {
  readonly kind: LearnerKind;
  /** Share of horses that got to the top. */
  readonly reached: number;
  /** The 10th, 50th and 90th percentile of those that did; null where none did. */
  readonly asks: readonly [number, number, number] | null;
  readonly notMet: readonly [number, number, number] | null;
}

/** What a rule comes to over every kind of horse. */
export interface RuleBand {
  readonly rungs: number;
  readonly kinds: readonly KindOutcome[];
  /** The kind that gets up least often; among equals the one that takes most asks. */
  readonly worst: KindOutcome;
}

/** What is climbed, and how often. */
export interface RuleBandChoice {
  readonly rungs: number;
  readonly asksPerSession: number;
  /** Horses of each kind. */
  readonly horses: number;
  readonly seed?: number;
  /** The yard's own thresholds of Ease. */
  readonly settings?: YardSettings;
}

const DAYS_BETWEEN = 2;
/** A ladder that takes more asks a rung than this is given up. */
export const MOST_ASKS_A_RUNG = 125;
/** A kind of which fewer get up is said by itself. */
const NEARLY_ALL = 0.9;

function percentiles(values: readonly number[]): readonly [number, number, number] | null {
  if (values.length === 0) return null;
  const sorted = [...values].sort((a, b) => a - b);
  const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] as number;
  return [at(0.1), at(0.5), at(0.9)];
}

/**
 * Lets horses of every kind climb a ladder by a rule. No rule is judged on one
 * kind of horse: which is best differs from kind to kind, and nobody knows
 * beforehand which one stands there.
 * Cost: kinds × horses × asks, some 300 000 asks a second.
 * @throws RangeError for a plan without a rung.
 * @example ruleBand(rule, { rungs: 12, asksPerSession: 40, horses: 60 }).worst.reached
 */
export function ruleBand(
  rule: MasteryRule,
  { rungs, asksPerSession, horses, seed = 1, settings = DEFAULT_SETTINGS }: RuleBandChoice,
): RuleBand {
  if (!Number.isInteger(rungs) || rungs < 1) throw new RangeError("ruleBand: a ladder of one rung or more is needed");
  const ease = easeThresholds(rule, settings);
  const plan = { rungs, rule, asksPerSession, daysBetween: DAYS_BETWEEN, ease, mostAsks: MOST_ASKS_A_RUNG * rungs };
  const kinds = LEARNER_KINDS.map((kind): KindOutcome => {
    const climbs = Array.from({ length: horses }, (_, i) => climb(learnerOf(kind), plan, mixedChance(`${seed}:${kind}:${i}`)));
    const up = climbs.filter(({ reached }) => reached);
    return {
      kind,
      reached: up.length / horses,
      asks: percentiles(up.map(({ asks }) => asks)),
      notMet: percentiles(up.map(({ failures }) => failures)),
    };
  });
  const worst = [...kinds].sort((a, b) => a.reached - b.reached || (b.asks?.[1] ?? 0) - (a.asks?.[1] ?? 0))[0] as KindOutcome;
  return { rungs, kinds, worst };
}

/** Numbers as a trainer reads them: to tens above a hundred, to fives below. */
const round = (n: number) => (n >= 100 ? Math.round(n / 10) * 10 : Math.max(5, Math.round(n / 5) * 5));

/**
 * The band in a sentence: eight in ten of every kind lie in it. Where a kind
 * mostly does not get up, that is what is said.
 * @example "12 rungs: 150 to 470 asks, 25 to 160 of them not met, whatever kind of horse."
 */
export function ruleBandSentence({ rungs, kinds, worst }: RuleBand): string {
  const ladder = `${rungs} ${rungs === 1 ? "rung" : "rungs"}`;
  const up = kinds.filter(({ reached }) => reached >= NEARLY_ALL);
  const span = (of: (one: KindOutcome) => KindOutcome["asks"]) => {
    const values = up.flatMap((one) => of(one) ?? []);
    return `${round(Math.min(...values))} to ${round(Math.max(...values))}`;
  };
  if (up.length === kinds.length)
    return `${ladder}: ${span(({ asks }) => asks)} asks, ${span(({ notMet }) => notMet)} of them not met, whatever kind of horse.`;
  const few = `${ladder}: of 100 horses of the kind that ${LEARNER_WORDS[worst.kind]}, ${Math.round(worst.reached * 100)} get up within ${MOST_ASKS_A_RUNG * rungs} asks`;
  return up.length === 0 ? `${few}.` : `${few}; others take ${span(({ asks }) => asks)}.`;
}
