import { medianOf } from "../evidence";
import type { CircleDigest } from "./digest";
import { PEN_SIGNS } from "./work";

/** How much of a sign had to be learned again after the change of direction, over sessions in a pen. */
export interface Relearned {
  readonly sign: (typeof PEN_SIGNS)[number];
  /** Sessions in which it was shown in the first direction and in the next. */
  readonly sessions: number;
  /** In so many of them it came sooner in the next. */
  readonly sooner: number;
  /** Of the first time, the median share that was saved; below 0 it took longer. */
  readonly savedShare: number;
  /** Exact two-sided sign test, sessions in which both took as long left out; null where none is left. */
  readonly p: number | null;
}

/** Two-sided chance of a split at least as uneven as this one, at even odds. */
function signTest(sooner: number, of: number): number | null {
  if (of === 0) return null;
  const fewer = Math.min(sooner, of - sooner);
  let chance = 0;
  let term = 0.5 ** of;
  for (let k = 0; k <= fewer; k++) {
    chance += term;
    term = (term * (of - k)) / (k + 1);
  }
  return Math.min(1, 2 * chance);
}

/**
 * The savings measure over directions of a pen: time to each sign in the
 * second direction against the first, session by session (Ebbinghaus 1885,
 * from memory; exact sign test). Signs never shown in both are left out.
 * @example relearnedOf([digest]) // one row for each sign
 */
export function relearnedOf(digests: readonly Pick<CircleDigest, "directions">[]): Relearned[] {
  return PEN_SIGNS.flatMap((sign) => {
    const pairs = digests.flatMap(({ directions }) => {
      const [before, after] = [directions[0]?.shown[sign] ?? null, directions[1]?.shown[sign] ?? null];
      return before === null || after === null || before <= 0 ? [] : [{ before, after }];
    });
    if (pairs.length === 0) return [];
    const saved = pairs.map(({ before, after }) => 1 - after / before);
    const told = pairs.filter(({ before, after }) => before !== after);
    const sooner = told.filter(({ before, after }) => after < before).length;
    return [{ sign, sessions: pairs.length, sooner, savedShare: medianOf(saved) ?? 0, p: signTest(sooner, told.length) }];
  });
}

/**
 * What is said of it: a difference only where the sign test shows one at 5 in 100, which takes six sessions.
 * @example relearnedSentence({ … })
 */
export function relearnedSentence({ sign, sessions, sooner, savedShare, p }: Relearned): string {
  const counts = `${sign}: sooner after the change of direction in ${sooner} of ${sessions} sessions`;
  if (p === null || p >= 0.05) return `${counts}; no difference shown yet.`;
  const share = Math.round(Math.abs(savedShare) * 100);
  return savedShare > 0
    ? `${counts}; it takes ${share} % less time there, by the middle session.`
    : `${counts}; it takes ${share} % more time there, by the middle session.`;
}
