import * as z from "zod";
import { document, number, wholeNumber, within, word } from "../documents";
import { RULE_BOUNDS } from "./rule";

const days = { days: within(wholeNumber, RULE_BOUNDS.days).optional() };

/**
 * When a rung counts as learned. With `days` it is to hold on so many
 * different days, each by the trials of that day alone; left out, one is enough.
 */
export const masteryRuleDocument = z
  .discriminatedUnion("kind", [
    document({
      kind: z.literal("share"),
      met: within(wholeNumber, RULE_BOUNDS.shareOf),
      of: within(wholeNumber, RULE_BOUNDS.shareOf),
      window: word(["moving", "block"]),
      ...days,
    }),
    document({ kind: z.literal("run"), length: within(wholeNumber, RULE_BOUNDS.runLength), ...days }),
    document({
      kind: z.literal("posterior"),
      target: within(number, RULE_BOUNDS.targetShare),
      confidence: within(number, RULE_BOUNDS.confidence),
      least: within(wholeNumber, RULE_BOUNDS.leastTrials),
      ...days,
    }),
    document({ kind: z.literal("first-clean"), ...days }),
  ])
  .refine((rule) => rule.kind !== "share" || rule.met <= rule.of, "Met: no more than the trials looked at.");
