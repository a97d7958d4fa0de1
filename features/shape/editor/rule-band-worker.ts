import { ruleBand, ruleBandSentence } from "@/core/forecast";
import type { MasteryRule } from "@/core/mastery";
import type { YardSettings } from "@/core/settings";

/** Rules to let horses of every kind climb by. */
export interface BandsAsked {
  readonly rules: readonly MasteryRule[];
  readonly rungs: number;
  readonly asksPerSession: number;
  readonly settings: YardSettings;
}

/** The answer for one of them, as soon as it is there. */
export interface BandTold {
  readonly index: number;
  readonly sentence: string;
}

/** Horses of each kind: enough that a percentile of ten is worth saying. */
const HORSES = 60;

self.addEventListener("message", ({ data }: MessageEvent<BandsAsked>) => {
  const { rules, rungs, asksPerSession, settings } = data;
  for (const [index, rule] of rules.entries()) {
    const sentence = ruleBandSentence(ruleBand(rule, { rungs, asksPerSession, horses: HORSES, settings }));
    self.postMessage({ index, sentence } satisfies BandTold);
  }
});
