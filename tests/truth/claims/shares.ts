import type { Chance } from "@/core/chance";
import { drawNormal } from "@/core/chance";
import { toldShare } from "@/core/compare";
import { type Counted, sumsOfSessions, wilsonInterval } from "@/core/evidence";
import { type Claim, DAY_SPREAD, holds, logit, share, trialsOf, upTo } from "./claim";

/** Sessions of a horse whose days differ, and the share it has in the long run. */
function shareSessions(chance: Chance, days: number, p: number): Counted[] {
  return upTo(days).map(() => trialsOf(chance, 8 + Math.floor(chance() * 9), share(logit(p) + drawNormal(chance, 0, DAY_SPREAD))));
}

/** The long-run share: the mean of the days' shares, by the normal distribution of their logits. */
function longRun(p: number): number {
  let sum = 0;
  let weight = 0;
  for (let z = -5; z <= 5; z += 0.01) {
    const w = Math.exp(-z * z * 0.5);
    sum += w * share(logit(p) + z * DAY_SPREAD);
    weight += w;
  }
  return sum / weight;
}

export const SHARES: Claim[] = [3, 5, 8, 16].flatMap((days) =>
  [0.5, 0.75].map(
    (p): Claim => ({
      sentence: "18 of 30 in 3 sessions, could be anywhere from … to …",
      horses: `days differ, ${p} in the middle, ${days} sessions`,
      asks: "covers",
      atLeast: 0.93,
      // Wider than it would have to be here, where days have nothing to do with the days beside them: nobody knows that beforehand.
      run: (chance) => holds(toldShare(sumsOfSessions(shareSessions(chance, days, p))).interval, longRun(p)),
    }),
  ),
);
SHARES.push({
  sentence: "8 of 10 in one session: there, … to …",
  horses: "of that session's own share",
  asks: "covers",
  atLeast: 0.93,
  run: (chance) => {
    const today = share(logit(0.7) + drawNormal(chance, 0, DAY_SPREAD));
    return holds(toldShare(sumsOfSessions([trialsOf(chance, 12, today)])).interval, today);
  },
});

/** What was said before, and would be caught now: no limit holds it. */
export const POOLED_AS_INDEPENDENT: Claim = {
  sentence: "the plain interval of pooled trials",
  horses: "days differ, 0.75 in the middle, 8 sessions",
  asks: "covers",
  atLeast: 0.93,
  run: (chance) => {
    const { met, of } = sumsOfSessions(shareSessions(chance, 8, 0.75));
    return holds(wilsonInterval(met, of), longRun(0.75));
  },
};
