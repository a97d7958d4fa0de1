import { chanceShareAtLeast } from "../evidence/shares";
import { byDay } from "./days";
import { daysWanted, type MasteryRule, type MasteryTrial } from "./rule";

/**
 * Whether a rule was passed at any trial of a list: what was shown once stays
 * shown. One pass over the list, so that ten years of a ladder cost no more than reading them.
 * @param trials of one rung, oldest first.
 * @example everMastered({ kind: "run", length: 1 }, [{ met: true, clean: false, blockKey: "a", wallMs: 0 }]) // true
 */
export function everMastered(rule: MasteryRule, trials: readonly MasteryTrial[]): boolean {
  const wanted = daysWanted(rule);
  if (wanted > 1) return byDay(trials).filter((day) => everMastered({ ...rule, days: 1 }, day)).length >= wanted;
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
        if (i - start + 1 === of && seen >= met) return true;
      }
      return false;
    }
    case "run": {
      let run = 0;
      for (const { met } of trials) {
        run = met ? run + 1 : 0;
        if (run >= rule.length) return true;
      }
      return false;
    }
    case "posterior": {
      let met = 0;
      for (let i = 0; i < trials.length; i++) {
        if (trials[i]?.met) met++;
        // Only a met answer can raise the chance above what it was.
        else if (i >= rule.least) continue;
        if (i + 1 >= rule.least && (chanceShareAtLeast(rule.target, met, i + 1) ?? 0) >= rule.confidence) return true;
      }
      return false;
    }
    case "first-clean":
      return trials.some(({ clean }) => clean);
  }
}
