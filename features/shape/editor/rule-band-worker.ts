import { ruleBand, ruleBandSentence } from "@/core/forecast";
import type { MasteryRule } from "@/core/mastery";

/** Rules to let horses of every kind climb by. */
export interface BandsAsked {
  readonly rules: readonly MasteryRule[];
  readonly rungs: number;
  readonly asksPerSession: number;
}

/** The answer for one of them, as soon as it is there. */
export interface BandTold {
  readonly index: number;
  readonly sentence: string;
}

/** Horses of each kind: enough that a percentile of ten is worth saying. */
const HORSES = 60;

self.addEventListener("message", ({ data }: MessageEvent<BandsAsked>) => {
  const { rules, rungs, asksPerSession } = data;
  for (const [index, rule] of rules.entries()) {
    const sentence = ruleBandSentence(ruleBand(rule, { rungs, asksPerSession, horses: HORSES }));
    self.postMessage({ index, sentence } satisfies BandTold);
  }
});
