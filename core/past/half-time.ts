import { type RightAnswers, rightAnswers } from "../evidence";
import type { PastTrial } from "./past";

const NORMAL_975 = 1.959963984540054;

/** When half of all asks had their right answer, with its 95 % interval. */
export interface HalfTime {
  /** Null where fewer than half ever do. */
  readonly seconds: number | null;
  /** An end is null where it lies beyond what was waited for. */
  readonly interval: readonly [number | null, number | null];
  /** Timed asks that went in. */
  readonly n: number;
}

/** Answer times of trials as the cumulative incidence takes them. @example answerTimes([]) // { steps: [], halfSeconds: null, n: 0 } */
export function answerTimes(trials: readonly PastTrial[]): RightAnswers {
  const right: number[] = [];
  const wrong: number[] = [];
  const refused: number[] = [];
  for (const { outcome, latencySeconds, waitedSeconds } of trials) {
    if ((outcome === "met" || outcome === "try") && latencySeconds !== null) right.push(latencySeconds);
    else {
      const waited = waitedSeconds ?? latencySeconds;
      if (waited !== null) (outcome === "miss" ? wrong : refused).push(waited);
    }
  }
  const up = (a: number, b: number) => a - b;
  return rightAnswers({ right: right.sort(up), wrong: wrong.sort(up), refused: refused.sort(up) });
}

/**
 * Half of all asks answered after, with the times at which a share of one half
 * cannot be ruled out: the share answered by t is held against one half by its
 * score test, |F(t) − ½| ≤ z·√(¼/n) (after Brookmeyer & Crowley 1982, with the
 * variance under one half, from memory). Trials count as independent, so it
 * speaks of these asks and not of other days.
 * @example halfTime(trials).interval // [1.2, 2.1]
 */
export function halfTime(trials: readonly PastTrial[]): HalfTime | null {
  const { steps, halfSeconds, n } = answerTimes(trials);
  if (n === 0) return null;
  const reach = NORMAL_975 * Math.sqrt(0.25 / n);
  const first = (share: number) => steps.find(([, reached]) => reached >= share - 1e-12)?.[0] ?? null;
  const interval = [first(0.5 - reach), steps.find(([, reached]) => reached > 0.5 + reach + 1e-12)?.[0] ?? null] as const;
  return { seconds: halfSeconds, interval, n };
}
