import { ruleBand, ruleBandSentence } from "@/core/forecast";
import type { MasteryRule } from "@/core/mastery";

/** A rule to let horses of every kind climb by, with a number to know the answer by. */
export interface BandAsked {
  readonly number: number;
  readonly rule: MasteryRule;
  readonly rungs: number;
  readonly asksPerSession: number;
}

export interface BandTold {
  readonly number: number;
  readonly sentence: string;
}

/** Horses of each kind: enough that a percentile of ten is worth saying. */
const HORSES = 80;

self.addEventListener("message", ({ data }: MessageEvent<BandAsked>) => {
  const { number, rule, rungs, asksPerSession } = data;
  self.postMessage({ number, sentence: ruleBandSentence(ruleBand(rule, { rungs, asksPerSession, horses: HORSES })) } satisfies BandTold);
});
