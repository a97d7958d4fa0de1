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
}

export const NO_SHARE: ShareSums = { sessions: 0, met: 0, of: 0, metSquares: 0, ofSquares: 0, products: 0 };

/** Adds sums up. @example addShares([sumsOf([{ met: 3, of: 5 }]), sumsOf([{ met: 2, of: 5 }])]) */
export function addShares(list: readonly ShareSums[]): ShareSums {
  return list.reduce(
    (all, one) => ({
      sessions: all.sessions + one.sessions,
      met: all.met + one.met,
      of: all.of + one.of,
      metSquares: all.metSquares + one.metSquares,
      ofSquares: all.ofSquares + one.ofSquares,
      products: all.products + one.products,
    }),
    NO_SHARE,
  );
}

/** Sums of sessions; those without a trial are left out. */
export function sumsOfSessions(sessions: Iterable<Counted>): ShareSums {
  let sums = NO_SHARE;
  for (const { met, of } of sessions)
    if (of > 0) sums = addShares([sums, { sessions: 1, met, of, metSquares: met * met, ofSquares: of * of, products: met * of }]);
  return sums;
}

/** Sums of trials by the session each belongs to. */
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
 * Share met over sessions. Trials of one session resemble each other, so the
 * variance is taken between sessions, V = k/(k−1)·Σ(mᵢ − p̂nᵢ)²/N², the design
 * effect is V/(p̂q̂/N) and never under 1, and Wilson's interval is drawn with
 * N/deff·(1.96/t₀.₉₇₅,ₖ₋₁)² trials in place of N (after Korn & Graubard 1998,
 * from memory). Of one session it is Wilson's interval of that session.
 * @returns null where there is no trial.
 * @example sessionShare(sumsOfSessions([{ met: 8, of: 10 }])) // 0.8, 0.490162 to 0.943318
 */
export function sessionShare(sums: ShareSums): SessionShare | null {
  const { sessions: k, met, of } = sums;
  if (of === 0) return null;
  const share = met / of;
  if (k < 2) return { share, interval: wilsonInterval(met, of) as Interval, effective: of, designEffect: 1 };
  const spread = Math.max(0, sums.metSquares - 2 * share * sums.products + share * share * sums.ofSquares);
  const variance = ((k / (k - 1)) * spread) / (of * of);
  const simple = (share * (1 - share)) / of;
  const designEffect = simple === 0 ? 1 : Math.max(1, variance / simple);
  const effective = (of / designEffect) * (NORMAL_975 / student975(k - 1)) ** 2;
  return { share, interval: scoreInterval(share, effective), effective, designEffect };
}
