export const ZONE_RULES = ["ask-nothing", "no-stay", "quit-first"] as const;
/** What holds in a zone of a place. */
export type ZoneRule = (typeof ZONE_RULES)[number];

/** A rule as it is chosen. */
export const ZONE_RULE_WORDS: Readonly<Record<ZoneRule, string>> = {
  "ask-nothing": "ask nothing here",
  "no-stay": "do not let it stay here",
  "quit-first": "quit before it leaves",
};

/** What is said when the horse comes to a zone with a rule. @example zoneRuleLine("gate", "ask-nothing") // "gate: ask nothing here." */
export const zoneRuleLine = (zone: string, rule: ZoneRule): string => `${zone}: ${ZONE_RULE_WORDS[rule]}.`;
