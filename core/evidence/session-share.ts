import type { Counted } from "./difference";
import { type Interval, NORMAL_975, scoreInterval, wilsonInterval } from "./shares";
import { student975 } from "./student";

/**
 * Met and trials of some sessions, in sums that can be added up: enough for a
 * share with an interval that knows how alike the trials of one session are.
 */
export interface ShareSums {
  /** Sessions with at least one trial. */
  readonly sessions: number;
  readonly met: number;
  readonly of: number;
  /** Σ met², Σ of² and Σ met·of over the sessions. */
  readonly metSquares: number;
  readonly ofSquares: number;
  readonly products: number;
  /** Of each session with the one after it: how many such pairs, Σ met·met′, Σ of·of′ and Σ (met·of′ + of·met′). */
  readonly pairs: number;
  readonly metNext: number;
  readonly ofNext: number;
  readonly productsNext: number;
}

export const NO_SHARE: ShareSums = {
  sessions: 0,
  met: 0,
  of: 0,
  metSquares: 0,
  ofSquares: 0,
  products: 0,
  pairs: 0,
  metNext: 0,
  ofNext: 0,
  productsNext: 0,
};

/** Adds sums up; the last session of one is no neighbour of the first of the next. @example addShares([sumsOf([{ met: 3, of: 5 }]), sumsOf([{ met: 2, of: 5 }])]) */
export function addShares(list: readonly ShareSums[]): ShareSums {
  return list.reduce(
    (all, one) => ({
      sessions: all.sessions + one.sessions,
      met: all.met + one.met,
      of: all.of + one.of,
      metSquares: all.metSquares + one.metSquares,
      ofSquares: all.ofSquares + one.ofSquares,
      products: all.products + one.products,
      pairs: all.pairs + one.pairs,
      metNext: all.metNext + one.metNext,
      ofNext: all.ofNext + one.ofNext,
      productsNext: all.productsNext + one.productsNext,
    }),
    NO_SHARE,
  );
}

/**
 * Sums of sessions; those without a trial are left out.
 * @param sessions oldest first: neighbouring days are alike.
 * @example sumsOfSessions([{ met: 0, of: 0 }]) // { sessions: 0, met: 0, of: 0, … }
 */
export function sumsOfSessions(sessions: Iterable<Counted>): ShareSums {
  let sums = NO_SHARE;
  let before: Counted | null = null;
  for (const { met, of } of sessions) {
    if (of <= 0) continue;
    sums = addShares([
      sums,
      {
        sessions: 1,
        met,
        of,
        metSquares: met * met,
        ofSquares: of * of,
        products: met * of,
        pairs: before === null ? 0 : 1,
        metNext: (before?.met ?? 0) * met,
        ofNext: (before?.of ?? 0) * of,
        productsNext: (before?.met ?? 0) * of + (before?.of ?? 0) * met,
      },
    ]);
    before = { met, of };
  }
  return sums;
}

/** Sums of trials by the session each belongs to. @example shareOfTrials([]) // { sessions: 0, met: 0, of: 0, … } */
export function shareOfTrials(trials: Iterable<{ readonly session: string; readonly outcome: string }>): ShareSums {
  const bySession = new Map<string, { met: number; of: number }>();
  for (const { session, outcome } of trials) {
    const sum = bySession.get(session) ?? { met: 0, of: 0 };
    sum.of++;
    if (outcome === "met") sum.met++;
    bySession.set(session, sum);
  }
  return sumsOfSessions(bySession.values());
}

/** A share over sessions with its 95 % interval. */
export interface SessionShare {
  readonly share: number;
  readonly interval: Interval;
  /** How many independent trials the trials are worth. */
  readonly effective: number;
  /** How many times the variance of independent trials theirs is; 1 within one session, where nothing tells. */
  readonly designEffect: number;
}

/**
 * What few sessions cannot tell of how days differ and of how alike
 * neighbouring ones are is taken from yards: a day lies so much off the mean on
 * the log odds, which counts for so many sessions, and neighbours are so alike,
 * which counts for so many. Chosen on simulated yards of other seeds than those
 * that judge them; no published source.
 */
const USUAL_DAY_SPREAD = 0.75;
const DAYS_COUNT = 20;
const USUAL_LIKENESS = 0.62;
const LIKENESS_COUNTS = 12;
/** Likeness seen in few days may be too small by as much: what is said has to hold then too. */
const CAUTION = 0.23;
const MOST_LIKENESS = 0.92;
/** Degrees that the yards' days add to the horse's own. */
const DEGREES_ADDED = 11;
/** Of what days differ by at least so much is seen, however alike neighbours are. */
const LEAST_SEEN = 0.3;

/** How many times the variance of a mean of so many neighbours, each so like the one before, that of independent ones is. */
function alikeFactor(n: number, likeness: number): number {
  let sum = 1;
  for (let lag = 1; lag < n; lag++) sum += 2 * (1 - lag / n) * likeness ** lag;
  return sum;
}

/** Variance of a share over sessions and the degrees it rests on. */
function varianceOf(sums: ShareSums): { variance: number; degrees: number } {
  const { sessions: k, met, of } = sums;
  const share = met / of;
  const each = of / k;
  // One met and one not are added: all met in a few is no reason to take it for certain.
  const drawn = (met + 1) / (of + 2);
  const simple = (drawn * (1 - drawn)) / each;
  const squares = Math.max(0, sums.metSquares - 2 * share * sums.products + share * share * sums.ofSquares);
  const between = squares / (k * each * each);
  const next = sums.metNext - share * sums.productsNext + share * share * sums.ofNext;
  const usual = (USUAL_DAY_SPREAD * drawn * (1 - drawn)) ** 2;
  const seen = Math.max(0, (between * k) / (k - 1) - simple);
  const neighbours = sums.pairs === 0 ? 0 : next / (sums.pairs * each * each);
  // The mean is taken off, so neighbours look less alike by its own variance.
  const likenessSeen =
    seen > 0 && sums.pairs > 0 ? Math.max(-0.2, Math.min(1, (neighbours + between / k) / Math.max(seen, usual / 4))) : USUAL_LIKENESS;
  const likeness = Math.min(
    MOST_LIKENESS,
    Math.max(0, (k * likenessSeen + LIKENESS_COUNTS * USUAL_LIKENESS) / (k + LIKENESS_COUNTS) + CAUTION),
  );
  const factor = alikeFactor(k, likeness);
  // Of days that are alike only part of how they differ is seen in a few.
  const whole = seen / Math.max(LEAST_SEEN, 1 - (factor - 1) / (k - 1));
  const days = (k * whole + DAYS_COUNT * usual) / (k + DAYS_COUNT);
  return { variance: (days * factor + simple) / k, degrees: Math.max(2, Math.round(k / factor) + DEGREES_ADDED) };
}

/**
 * Share met over sessions. Trials of one session resemble each other, and days
 * the days beside them, so the variance is that of days, drawn towards what
 * yards' days are, times how much a mean of neighbours varies more, and that of
 * trials within a day: V = (σ²·f + p̃q̃/n̄)/k. Wilson's interval is drawn with
 * p̃q̃/V·(1.96/t)² trials in place of N, never more than there are (after Korn &
 * Graubard 1998, from memory). Of one session it is Wilson's interval of that session.
 * It is the share over days such as these, with this handler, at these places.
 * @returns null where there is no trial.
 * @example sessionShare(sumsOfSessions([{ met: 8, of: 10 }])) // 0.8, 0.490162 to 0.943318
 */
export function sessionShare(sums: ShareSums): SessionShare | null {
  const { sessions: k, met, of } = sums;
  if (of === 0) return null;
  const share = met / of;
  if (k < 2) return { share, interval: wilsonInterval(met, of) as Interval, effective: of, designEffect: 1 };
  const { variance, degrees } = varianceOf(sums);
  const drawn = (met + 1) / (of + 2);
  const designEffect = Math.max(1, (variance * of) / (drawn * (1 - drawn)));
  const effective = (of / designEffect) * (NORMAL_975 / student975(degrees)) ** 2;
  return { share, interval: scoreInterval(share, effective), effective, designEffect };
}
