import { chanceShareAtLeast } from "../evidence/shares";
import { byDay } from "./days";
import { calmOnly, daysWanted, type MasteryRule, type MasteryTrial } from "./rule";

/**
 * After how many trials a rule was first passed: asks to the rule. One pass
 * over the list, so that ten years of a ladder cost no more than reading them.
 * @param trials of one rung, oldest first.
 * @returns null where it never was.
 * @example passedAfter({ kind: "run", length: 1 }, [{ met: true, clean: false, blockKey: "a", wallMs: 0 }]) // 1
 */
export function passedAfter(rule: MasteryRule, trials: readonly MasteryTrial[]): number | null {
  const wanted = daysWanted(rule);
  if (wanted > 1) {
    let shown = 0;
    let before = 0;
    for (const day of byDay(calmOnly(trials))) {
      const after = passedAfter({ ...rule, days: 1 }, day);
      if (after !== null && ++shown === wanted) return before + after;
      before += day.length;
    }
    return null;
  }
  switch (rule.kind) {
    case "share": {
      const { met, of, window } = rule;
      let seen = 0;
      let start = 0;
      for (let i = 0; i < trials.length; i++) {
        // A block's window begins anew with each block, and once it is full; a moving one lets the oldest go.
        const anew = window === "block" && (i === start + of || trials[i]?.blockKey !== trials[start]?.blockKey);
        if (anew) {
          start = i;
          seen = 0;
        } else if (window === "moving" && i - start === of) seen -= trials[start++]?.met ? 1 : 0;
        if (trials[i]?.met) seen++;
        if (i - start + 1 === of && seen >= met) return i + 1;
      }
      return null;
    }
    case "run": {
      let run = 0;
      for (const [i, { met }] of trials.entries()) {
        run = met ? run + 1 : 0;
        if (run >= rule.length) return i + 1;
      }
      return null;
    }
    case "posterior": {
      let met = 0;
      for (let i = 0; i < trials.length; i++) {
        if (trials[i]?.met) met++;
        // Only a met answer can raise the chance above what it was.
        else if (i >= rule.least) continue;
        if (i + 1 >= rule.least && (chanceShareAtLeast(rule.target, met, i + 1) ?? 0) >= rule.confidence) return i + 1;
      }
      return null;
    }
    case "first-clean": {
      const at = trials.findIndex(({ clean }) => clean);
      return at < 0 ? null : at + 1;
    }
  }
}

/**
 * Whether a rule was passed at any trial of a list: what was shown once stays
 * shown. As {@link passedAfter}.
 * @example everMastered({ kind: "run", length: 1 }, [{ met: true, clean: false, blockKey: "a", wallMs: 0 }]) // true
 */
export const everMastered = (rule: MasteryRule, trials: readonly MasteryTrial[]): boolean => passedAfter(rule, trials) !== null;
