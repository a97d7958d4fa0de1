import { goBackThresholds } from "../advice";
import { type Chance, mixedChance } from "../chance";
import { type AnyLearnerKind, LEARNER_KINDS, LEARNER_WORDS, type Learner, learnerOf } from "../learner";
import type { MasteryRule } from "../mastery";
import { DEFAULT_SETTINGS, type YardSettings } from "../settings";
import { climb, type YardHabits } from "./climb";
import { type BarPlan, climbByBar } from "./climb-by-bar";

/** What a rule came to with one kind of horse. */
export interface KindOutcome {
  readonly kind: AnyLearnerKind;
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

/** A bar that follows the horse's own answers, in place of a rule. */
export interface FollowingBar extends Pick<BarPlan, "lookBack" | "wantedShare"> {
  readonly kind: "bar";
  /** What has to hold at the top. */
  readonly top: MasteryRule;
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
  /** Which kinds climb; the four of the study where it is left out. */
  readonly kinds?: readonly AnyLearnerKind[];
  /** The yard they climb in. */
  readonly habits?: YardHabits;
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
  rule: MasteryRule | FollowingBar,
  { rungs, asksPerSession, horses, seed = 1, settings = DEFAULT_SETTINGS, kinds: asked = LEARNER_KINDS, habits }: RuleBandChoice,
): RuleBand {
  if (!Number.isInteger(rungs) || rungs < 1) throw new RangeError("ruleBand: a ladder of one rung or more is needed");
  const plan = { rungs, asksPerSession, daysBetween: DAYS_BETWEEN, mostAsks: MOST_ASKS_A_RUNG * rungs, habits };
  const up =
    rule.kind === "bar"
      ? (learner: Learner, chance: Chance) =>
          climbByBar(learner, { ...plan, ...rule, rule: rule.top, ease: goBackThresholds(rule.top, settings) }, chance)
      : (learner: Learner, chance: Chance) => climb(learner, { ...plan, rule, ease: goBackThresholds(rule, settings) }, chance);
  const kinds = asked.map((kind): KindOutcome => {
    const climbs = Array.from({ length: horses }, (_, i) => up(learnerOf(kind), mixedChance(`${seed}:${kind}:${i}`)));
    const arrived = climbs.filter(({ reached }) => reached);
    return {
      kind,
      reached: arrived.length / horses,
      asks: percentiles(arrived.map(({ asks }) => asks)),
      notMet: percentiles(arrived.map(({ failures }) => failures)),
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
