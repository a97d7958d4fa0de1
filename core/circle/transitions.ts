import { type Interval, medianOf, survival, wilsonInterval } from "../evidence";
import type { Transition } from "./work";

/** Transitions to one gait on one hand. */
export interface TransitionSums {
  readonly to: string;
  readonly side: "L" | "R";
  readonly n: number;
  readonly came: number;
  /** Came on voice alone, whatever number of times it was said. */
  readonly voiceAlone: number;
  /** Of all asked for; Wilson's interval. */
  readonly voice95: Interval;
  /** Asks until it came, on average over those that came; null where none did. */
  readonly asksEach: number | null;
  /** Half of all asked for had come after so many seconds; null where fewer than half. */
  readonly halfSeconds: number | null;
  readonly outSeconds: number | null;
}

/**
 * Transitions by gait and hand, left before right. What never came is asked for all the same.
 * @example transitionSums([{ to: "walk", side: "L", aids: ["voice"], cameAfterSeconds: 2, … }])[0].voiceAlone // 1
 */
export function transitionSums(
  transitions: readonly Pick<Transition, "to" | "side" | "aids" | "cameAfterSeconds" | "waitedSeconds" | "outAfterSeconds">[],
): TransitionSums[] {
  const groups = new Map<string, (typeof transitions)[number][]>();
  for (const one of transitions) {
    const key = `${one.to} ${one.side}`;
    const list = groups.get(key);
    if (list === undefined) groups.set(key, [one]);
    else list.push(one);
  }
  return [...groups]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([, list]) => {
      const first = list[0] as (typeof list)[number];
      const came = list.filter(({ cameAfterSeconds }) => cameAfterSeconds !== null);
      const voiceAlone = came.filter(({ aids }) => aids.every((aid) => aid === "voice")).length;
      return {
        to: first.to,
        side: first.side,
        n: list.length,
        came: came.length,
        voiceAlone,
        voice95: wilsonInterval(voiceAlone, list.length) ?? [0, 1],
        asksEach: came.length === 0 ? null : came.reduce((sum, { aids }) => sum + aids.length, 0) / came.length,
        halfSeconds: survival(
          list.map(({ cameAfterSeconds, waitedSeconds }) => ({
            seconds: cameAfterSeconds ?? waitedSeconds,
            answered: cameAfterSeconds !== null,
          })),
        ).medianSeconds,
        outSeconds: medianOf(came.flatMap(({ outAfterSeconds }) => outAfterSeconds ?? [])),
      };
    });
}
