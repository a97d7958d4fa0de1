import { type Counted, FEWEST_TRIALS_TO_TELL, fisherExact, type Outcome, shareDifference } from "../evidence";

/** Met of all on each side. */
export interface SideCounts {
  readonly L: Counted;
  readonly R: Counted;
}

export const NO_SIDES: SideCounts = { L: { met: 0, of: 0 }, R: { met: 0, of: 0 } };

/** Counts the trials of each side; trials without a side are left out. */
export function countSides(trials: readonly { readonly side: "L" | "R" | null; readonly outcome: Outcome }[]): SideCounts {
  const counts = { L: { met: 0, of: 0 }, R: { met: 0, of: 0 } };
  for (const { side, outcome } of trials) {
    if (side === null) continue;
    counts[side].of++;
    if (outcome === "met") counts[side].met++;
  }
  return counts;
}

/** Adds counts up. */
export function addSides(list: readonly SideCounts[]): SideCounts {
  const sum = (side: "L" | "R") =>
    list.reduce((all, one) => ({ met: all.met + one[side].met, of: all.of + one[side].of }), { met: 0, of: 0 });
  return { L: sum("L"), R: sum("R") };
}

/** Which side is behind, and how sure that is. */
export interface SidePicture {
  readonly counts: SideCounts;
  /** The side behind, or null where no difference is shown. */
  readonly weaker: "L" | "R" | null;
  /** Fisher's exact p; null where a side holds no trial. */
  readonly p: number | null;
  readonly headline: string;
  readonly reason: string;
}

const percent = (share: number) => Math.round(share * 100);

/**
 * Compares the sides of recent work. A side is called weaker only where
 * Fisher's exact test (Fisher 1935) gives p under 0.05. The test takes trials
 * as independent, which those of one session are not quite.
 */
export function sidePicture(counts: SideCounts): SidePicture {
  const { L, R } = counts;
  const change = shareDifference(L, R);
  if (change === null) return { counts, weaker: null, p: null, headline: "No side known yet", reason: "Trials on both sides are needed." };
  const p = fisherExact(L.met, L.of - L.met, R.met, R.of - R.met);
  const numbers = `Left ${L.met} of ${L.of}, right ${R.met} of ${R.of} met`;
  if (L.of < FEWEST_TRIALS_TO_TELL || R.of < FEWEST_TRIALS_TO_TELL)
    return { counts, weaker: null, p, headline: "Sides: too few to tell", reason: `${numbers}.` };
  const [low, high] = change.interval;
  const range = `right less left ${percent(change.difference)} points, could be anywhere from ${percent(low)} to ${percent(high)}`;
  if (p >= 0.05) return { counts, weaker: null, p, headline: "No difference of sides shown", reason: `${numbers}; ${range}.` };
  const weaker = change.difference > 0 ? "L" : "R";
  return {
    counts,
    weaker,
    p,
    headline: weaker === "L" ? "Left is weaker" : "Right is weaker",
    reason: `${numbers}; ${range}. Begin there and give it more.`,
  };
}
