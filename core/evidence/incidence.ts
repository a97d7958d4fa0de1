/** Times to a right answer, to a wrong one, and of waiting in vain, each in rising order, in seconds. */
export interface AnswerTimes {
  readonly right: ArrayLike<number>;
  readonly wrong: ArrayLike<number>;
  readonly refused: ArrayLike<number>;
}

/** The cumulative incidence of a right answer. */
export interface RightAnswers {
  /** After so many seconds, this share of all asks had its right answer. */
  readonly steps: readonly (readonly [seconds: number, share: number])[];
  /** When half of all asks had it; null where fewer than half ever do. */
  readonly halfSeconds: number | null;
  /** Asks that went in. */
  readonly n: number;
}

const HALF_TOLERANCE = 1e-12;

/**
 * Cumulative incidence of a right answer where a wrong one rules it out
 * (Aalen & Johansen 1978): F(t) = Σ S(tⱼ−)·dⱼ/nⱼ over answer times up to t, dⱼ
 * right answers of nⱼ still waiting, S the share that has had no answer of
 * either kind. A refusal is cut off at its wait. A wrong answer is no
 * censoring: as one it would be taken for a right answer still to come.
 * @example rightAnswers({ right: [1, 2], wrong: [3, 4], refused: [] }).halfSeconds // 2
 */
export function rightAnswers({ right, wrong, refused }: AnswerTimes): RightAnswers {
  const n = right.length + wrong.length + refused.length;
  const steps: [number, number][] = [];
  let waiting = n;
  let unanswered = 1;
  let share = 0;
  let halfSeconds: number | null = null;
  let r = 0;
  let w = 0;
  let c = 0;
  while (r < right.length || w < wrong.length) {
    const seconds = Math.min(right[r] ?? Number.POSITIVE_INFINITY, wrong[w] ?? Number.POSITIVE_INFINITY);
    while (c < refused.length && (refused[c] as number) < seconds) {
      c++;
      waiting--;
    }
    let rights = 0;
    let wrongs = 0;
    for (; r < right.length && right[r] === seconds; r++) rights++;
    for (; w < wrong.length && wrong[w] === seconds; w++) wrongs++;
    share += (unanswered * rights) / waiting;
    unanswered *= 1 - (rights + wrongs) / waiting;
    waiting -= rights + wrongs;
    if (rights > 0) steps.push([seconds, share]);
    if (halfSeconds === null && share >= 0.5 - HALF_TOLERANCE) halfSeconds = seconds;
  }
  return { steps, halfSeconds, n };
}
