import type { WayChange } from "../ladder";
import { type Arm, BLOCKS, beginnings, MOST_ALIKE, ordersOf } from "./orders";
import { type RandomisationTest, randomisationTest } from "./randomisation";

/** What counts in an experiment. */
export const COUNTED = ["latency", "share", "leaving", "tension", "asks"] as const;
export type Counted = (typeof COUNTED)[number];

/** What is counted, in words: the thing, its unit, and which way is better. */
export const COUNTED_WORDS: Readonly<
  Record<Counted, { readonly name: string; readonly unit: string; readonly better: "more" | "less"; readonly help: string }>
> = {
  latency: {
    name: "how soon it answers",
    unit: "s",
    better: "less",
    help: "Half of the block's asks answered after; where fewer than half ever were, its longest wait.",
  },
  share: { name: "how often it gets it right", unit: "points", better: "more", help: "Met of the block's asks." },
  leaving: {
    name: "how long until it leaves",
    unit: "s",
    better: "more",
    help: "Seconds of the block until it first left; where it stayed, the whole block.",
  },
  tension: {
    name: "tension signs",
    unit: "in ten minutes",
    better: "less",
    help: "Tension and danger signs of the block in ten minutes of it.",
  },
  asks: {
    name: "asks to the rule",
    unit: "asks",
    better: "less",
    help: "Asks of the block until the ladder's rule held by them alone; where it did not, all of them.",
  },
};

/** A question trainers argue about, with its two answers. */
export interface TryQuestion {
  readonly key: string;
  readonly question: string;
  readonly a: string;
  readonly b: string;
  /** What the pads and the log take from each of the two; left out where nothing. */
  readonly ways?: TryWays;
}

/** What each of the two ways changes of the plan. */
export type TryWays = Readonly<Record<Arm, WayChange>>;

export const TRY_QUESTIONS: readonly TryQuestion[] = [
  { key: "pressure-where", question: "Where does pressure meet a wrong choice?", a: "at the first step", b: "far out" },
  {
    key: "profile",
    question: "How is the ask made?",
    a: "steady, held the same",
    b: "rising",
    ways: { A: { profile: "steady" }, B: { profile: "rising" } },
  },
  {
    key: "reinforcer",
    question: "What does a right answer earn?",
    a: "food",
    b: "a scratch",
    ways: { A: { reinforcer: "food" }, B: { reinforcer: "scratch" } },
  },
  {
    key: "send-lead",
    question: "How is it asked to go?",
    a: "sent",
    b: "led",
    ways: { A: { cue: "wave" }, B: { cue: "lead" } },
  },
  { key: "begin-side", question: "Which side comes first?", a: "the left", b: "the right" },
  { key: "own", question: "", a: "", b: "" },
];

/** An experiment on one horse, one ladder, one rung. */
export interface TryBoth {
  readonly id: string;
  readonly ladder: string;
  readonly version: number;
  readonly rung: number;
  readonly question: string;
  readonly a: string;
  readonly b: string;
  readonly counts: Counted;
  /** What each way changes of the plan, besides what its words say. */
  readonly ways: TryWays;
  readonly arms: readonly Arm[];
  readonly mostAlike: number;
  /** Asks planned for each block. */
  readonly asksEach: number;
  readonly createdMs: number;
  readonly endedMs: number | null;
  readonly endedWhy: string | null;
}

/** A block that was worked for it. */
export interface TriedBlock {
  /** Counted from 1, as it was drawn. */
  readonly number: number;
  /** As it was worked, which may be another than was drawn. */
  readonly worked: Arm;
  readonly value: number | null;
  readonly session: string;
  readonly startedMs: number;
  readonly asks: number;
}

/** How far it has come and what it shows. */
export interface TryResult {
  readonly done: number;
  readonly blocks: readonly TriedBlock[];
  /** What is due next; null where all were worked or it was ended. */
  readonly due: { readonly number: number; readonly arm: Arm } | null;
  readonly complete: boolean;
  readonly test: RandomisationTest | null;
  readonly meanA: number | null;
  readonly meanB: number | null;
  /** Blocks worked as the other arm than was drawn. */
  readonly otherwise: number;
  readonly sentence: string;
  readonly caution: string | null;
}

export const TRY_DEFAULTS = { blocks: BLOCKS.usual, mostAlike: MOST_ALIKE, asksEach: 6 } as const;
/** Called at this p: it is looked at once, at its end. */
export const TRY_CALLED_AT = 0.05;

const mean = (list: readonly number[]) => (list.length === 0 ? null : list.reduce((sum, one) => sum + one, 0) / list.length);

/** A value of what is counted, in words. @example valueWords("latency", 2) // "2.0 s" */
export function valueWords(counts: Counted, value: number): string {
  const number = counts === "share" ? `${Math.round(value * 100)} %` : value.toFixed(value >= 10 ? 0 : 1);
  const { unit } = COUNTED_WORDS[counts];
  return counts === "share" ? number : `${number} ${unit}`;
}

const sizeWords = (counts: Counted, value: number) =>
  counts === "share" ? `${Math.round(Math.abs(value) * 100)} points` : valueWords(counts, Math.abs(value));

function intervalWords(counts: Counted, [low, high]: readonly [number, number]): string {
  const end = (value: number) =>
    Number.isFinite(value) ? (counts === "share" ? `${Math.round(value * 100)}` : value.toFixed(1)) : "no end";
  return `${end(low)} to ${end(high)} ${COUNTED_WORDS[counts].unit}`;
}

/**
 * What an experiment has come to. Nothing is said of a difference before its
 * last block: a look at every block would call nothing something, and so would
 * an end that may have been chosen by what was seen. One that is ended early
 * gives its counts alone. Each block counts as the arm that was drawn for it, also where it
 * was worked otherwise, so that the test stays exact; that is said.
 * @param blocks those that were worked, by the number each was drawn as.
 * @example tryResult(one, blocks) // { done: 12, due: null, complete: true, … }
 */
export function tryResult(one: TryBoth, blocks: readonly TriedBlock[]): TryResult {
  const byNumber = new Map<number, TriedBlock>();
  for (const block of blocks) if (!byNumber.has(block.number)) byNumber.set(block.number, block);
  let done = 0;
  while (byNumber.has(done + 1) && done < one.arms.length) done++;
  const worked = Array.from({ length: done }, (_, i) => byNumber.get(i + 1) as TriedBlock);
  const values = worked.map(({ value }) => value);
  const drawn = one.arms.slice(0, done);
  const complete = done === one.arms.length;
  const ended = one.endedMs !== null;
  const test = complete ? randomisationTest(values, drawn, beginnings(ordersOf(one.arms.length, one.mostAlike), done)) : null;
  const of = (arm: Arm) => mean(values.filter((value, i): value is number => value !== null && drawn[i] === arm));
  const otherwise = worked.filter(({ worked: arm }, i) => arm !== drawn[i]).length;
  const next = one.arms[done];
  return {
    done,
    blocks: worked,
    due: complete || ended || next === undefined ? null : { number: done + 1, arm: next },
    complete,
    test,
    meanA: of("A"),
    meanB: of("B"),
    otherwise,
    sentence: sentenceOf(one, { test, done, complete, ended, meanA: of("A"), meanB: of("B") }),
    caution:
      otherwise === 0
        ? null
        : `${otherwise} of ${done} blocks ${otherwise === 1 ? "was" : "were"} not worked as drawn; each counts as what was drawn, which makes a difference harder to see.`,
  };
}

function sentenceOf(
  { a, b, counts, arms }: TryBoth,
  {
    test,
    done,
    complete,
    ended,
    meanA,
    meanB,
  }: {
    readonly test: RandomisationTest | null;
    readonly done: number;
    readonly complete: boolean;
    readonly ended: boolean;
    readonly meanA: number | null;
    readonly meanB: number | null;
  },
): string {
  if (!complete && !ended)
    return `${done} of ${arms.length} blocks worked. What they show is said at the end, so that nothing is read into the first of them.`;
  const short = complete ? "" : `Cut short after ${done} of ${arms.length} blocks. `;
  if (meanA === null || meanB === null) return `${short}Not enough was worked to hold one against the other.`;
  const { name, better } = COUNTED_WORDS[counts];
  const means = `${a} ${valueWords(counts, meanA)}, ${b} ${valueWords(counts, meanB)}`;
  if (!complete) return `${short}${means}. Which is better can be told only where it ends where it was to end.`;
  if (test === null) return "Not enough was worked to hold one against the other.";
  const orders = `p ${test.p < 0.001 ? "under 0.001" : test.p.toFixed(3)} of ${test.orders} orders`;
  if (test.leastP > TRY_CALLED_AT)
    return `${means}. With so few blocks nothing can be told from chance: the smallest p was ${test.leastP.toFixed(2)}.`;
  const range = test.interval === null ? "" : ` The difference could be anywhere from ${intervalWords(counts, test.interval)}.`;
  if (test.p >= TRY_CALLED_AT) return `No difference shown in ${name}: ${means} (${orders}).${range}`;
  const bBetter = better === "more" ? test.effect > 0 : test.effect < 0;
  return `With this horse on this rung, ${bBetter ? b : a} did better in ${name}: ${means}, a difference of ${sizeWords(counts, test.effect)} (${orders}).${range}`;
}
