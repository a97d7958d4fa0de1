import { type AdviceInput, likelyShareWords, theAdvice } from "@/core/advice";
import type { Chance } from "@/core/chance";
import { notMet } from "@/core/learner";
import { DEFAULT_MASTERY_RULE } from "@/core/mastery";
import type { EvidenceTrial } from "@/core/record";
import { DEFAULT_SETTINGS } from "@/core/settings";
import { type Claim, upTo } from "./claim";

function trialsAt(chance: Chance, n: number, p: number, session: string, block: string): EvidenceTrial[] {
  return upTo(n).map(() => {
    const outcome = chance() < p ? "met" : notMet(chance());
    return {
      handler: null,
      session,
      wallMs: 0,
      ladder: "l",
      version: 1,
      rung: 2,
      kind: "work",
      blockKey: block,
      side: "L",
      outcome,
      // Who refuses was asked up to the clearest cue.
      phase: outcome === "refused" ? 4 : 2,
      ease: null,
      value: null,
      clean: false,
      comparable: true,
    };
  });
}

const WORD: AdviceInput = {
  rule: DEFAULT_MASTERY_RULE,
  bothSides: false,
  rung: 2,
  rungCount: 8,
  earlier: [],
  block: [],
  counts: true,
  minutesSinceRest: 1,
  trialsSinceRest: 1,
  workMinutes: 5,
  fullPhase: 4,
  splittable: true,
};

/** Whether a word came at any trial of a block of ten. */
function heard(chance: Chance, p: number, word: "Go back" | "Add a step", history: readonly EvidenceTrial[] = []): boolean {
  const block = trialsAt(chance, 10, p, "now", "now:0");
  // At each trial, and once when the session is over: what sessions past say is said then.
  return upTo(11).some(
    (n) => theAdvice({ ...WORD, history, earlier: history, block: block.slice(0, n + 1), over: n === 10 }, DEFAULT_SETTINGS).word === word,
  );
}

/** Three sessions of two blocks of ten before this one, each at its own share. */
const before = (chance: Chance, shares: readonly number[]) =>
  shares.flatMap((p, s) => [...trialsAt(chance, 10, p, `s${s}`, `s${s}:0`), ...trialsAt(chance, 10, p, `s${s}`, `s${s}:1`)]);

/** The two numbers of "likelier 6 to 9 in 10". */
const likelier = (met: readonly boolean[]): readonly [number, number] => {
  const [, low, high] = /likelier (\d+) to (\d+) in 10/.exec(likelyShareWords(met)) ?? [];
  return [Number(low), Number(high)];
};

export const THE_WORD: Claim[] = [
  {
    sentence: "Go back",
    horses: "true share 0.8, a block of ten",
    asks: "false",
    atMost: 0.1,
    run: (chance) => heard(chance, 0.8, "Go back"),
  },
  {
    sentence: "Go back",
    horses: "true share 0.9, a block of ten",
    asks: "false",
    atMost: 0.05,
    run: (chance) => heard(chance, 0.9, "Go back"),
  },
  {
    sentence: "Go back",
    // More than half of what is not met are tries, which call for nothing: a short block hears little.
    horses: "true share 0.3, a block of ten",
    asks: "found",
    atLeast: 0.3,
    run: (chance) => heard(chance, 0.3, "Go back"),
  },
  {
    sentence: "Add a step",
    horses: "true share 0.8 in three sessions before and now",
    asks: "false",
    atMost: 0.1,
    run: (chance) => heard(chance, 0.8, "Add a step", before(chance, [0.8, 0.8, 0.8])),
  },
  {
    sentence: "Add a step",
    horses: "gains 0.4, 0.55, 0.7 over three sessions, 0.8 now",
    asks: "false",
    atMost: 0.1,
    run: (chance) => heard(chance, 0.8, "Add a step", before(chance, [0.4, 0.55, 0.7])),
  },
  {
    sentence: "Add a step",
    horses: "stays at 0.4 over three sessions and now",
    asks: "found",
    atLeast: 0.4,
    run: (chance) => heard(chance, 0.4, "Add a step", before(chance, [0.4, 0.4, 0.4])),
  },
  {
    sentence: "Raise: its true share is likelier 6 to 9 in 10",
    horses: "when the rule is first met, true share from 0.5 to 0.95",
    asks: "covers",
    atLeast: 0.75,
    run: (chance) => {
      const p = 0.5 + 0.45 * chance();
      const met: boolean[] = [];
      for (let n = 0; n < 300; n++) {
        met.push(chance() < p);
        const rule = DEFAULT_MASTERY_RULE;
        if (rule.kind !== "share" || met.length < rule.of || met.slice(-rule.of).filter(Boolean).length < rule.met) continue;
        const [low, high] = likelier(met);
        // In tenths: 6 to 9 in 10 means from 5.5 to 9.5.
        return p * 10 >= low - 0.5 && p * 10 <= high + 0.5;
      }
      return null;
    },
  },
];
