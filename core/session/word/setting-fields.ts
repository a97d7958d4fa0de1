import { DEFAULT_WORD_SETTINGS, type WordSettings } from "./settings";

/** What a setting is called on screen, with the least and the most it takes. Shares are typed in per cent. */
export interface WordSettingField {
  /** The word it belongs to. */
  readonly group: string;
  readonly key: keyof WordSettings;
  readonly label: string;
  readonly unit: string;
  readonly least: number;
  readonly most: number;
  readonly share?: boolean;
}

export const WORD_SETTING_FIELDS: readonly WordSettingField[] = [
  { group: "Rest", key: "restAfterMinutes", label: "Rest after", unit: "min of work", least: 1, most: 60 },
  { group: "Rest", key: "restAfterTrials", label: "Rest after", unit: "asks", least: 3, most: 200 },
  { group: "Rest", key: "heatWatchShare", label: "In heat to watch, of that", unit: "%", least: 10, most: 100, share: true },
  { group: "Rest", key: "heatCutShare", label: "In heat that cuts work, of that", unit: "%", least: 10, most: 100, share: true },
  { group: "Rest", key: "restBreathingTimes", label: "Rest when breathing is", unit: "times resting", least: 1.25, most: 10 },
  { group: "Finish", key: "finishAfterMinutes", label: "Finish after", unit: "min of work", least: 2, most: 120 },
  { group: "Finish", key: "finishLeadMinutes", label: "Bring it to its end before that", unit: "min", least: 0, most: 20 },
  { group: "Finish", key: "planBlocks", label: "A session's plan", unit: "blocks", least: 1, most: 40 },
  { group: "Finish", key: "bestAfterTrials", label: "A clear best not before", unit: "asks today", least: 3, most: 100 },
  { group: "Finish", key: "bestMargin", label: "A clear best passes the best so far by", unit: "%", least: 1, most: 200, share: true },
  { group: "Ease", key: "easeRun", label: "Ease after", unit: "missed or refused running", least: 2, most: 10 },
  { group: "Ease", key: "easeMisses", label: "Ease after", unit: "missed or refused among the last", least: 2, most: 12 },
  { group: "Ease", key: "easeWindow", label: "The last are", unit: "asks", least: 3, most: 12 },
  {
    group: "Ease",
    key: "easeMostShare",
    label: "Ease from a horse true to the rule, at most in",
    unit: "% of blocks of ten",
    least: 1,
    most: 50,
    share: true,
  },
  { group: "Ease", key: "tensionSigns", label: "Ease after", unit: "tension signs", least: 1, most: 20 },
  { group: "Ease", key: "tensionWindowSeconds", label: "Seen within", unit: "s", least: 10, most: 600 },
  { group: "Split", key: "splitAfterEases", label: "Split when Ease comes for the time", unit: "on a rung", least: 1, most: 10 },
  { group: "Split", key: "noGainSessions", label: "Split without gain over", unit: "sessions", least: 2, most: 12 },
  { group: "Split", key: "noGainTrials", label: "Each with at least", unit: "asks", least: 1, most: 50 },
  { group: "Change side", key: "sideGap", label: "Change side at a difference of", unit: "%", least: 5, most: 100, share: true },
  { group: "Change side", key: "sideGapTrials", label: "With at least, on each side", unit: "asks", least: 2, most: 50 },
  { group: "Change side", key: "weakerSideTimes", label: "The weaker side gets", unit: "times the plan", least: 1, most: 5 },
  { group: "Raise", key: "easeGraded", label: "Where the rung asks for ease, graded at least", unit: "answers", least: 1, most: 20 },
  { group: "Every word", key: "standsForTrials", label: "A word stands for", unit: "asks", least: 1, most: 10 },
  { group: "Pause", key: "silenceMinutes", label: "Without a tap it is a pause after", unit: "min", least: 2, most: 240 },
];

const WHOLE: ReadonlySet<keyof WordSettings> = new Set([
  "restAfterTrials",
  "planBlocks",
  "bestAfterTrials",
  "easeRun",
  "easeMisses",
  "easeWindow",
  "tensionSigns",
  "splitAfterEases",
  "noGainSessions",
  "noGainTrials",
  "sideGapTrials",
  "easeGraded",
  "standsForTrials",
]);

/** Why a typed setting cannot be taken, or null. The value is as typed: shares in per cent. */
export function wordSettingProblem(field: WordSettingField, typed: number): string | null {
  if (!Number.isFinite(typed)) return "A number is needed.";
  if (typed < field.least || typed > field.most) return `From ${field.least} to ${field.most}.`;
  if (WHOLE.has(field.key) && !Number.isInteger(typed)) return "A whole number is needed.";
  return null;
}

/** Settings as they were kept, with the default for whatever is missing or out of its bounds. */
export function wordSettingsFrom(kept: unknown): WordSettings {
  const given = typeof kept === "object" && kept !== null ? (kept as Record<string, unknown>) : {};
  const settings: Record<string, number> = { ...DEFAULT_WORD_SETTINGS };
  for (const field of WORD_SETTING_FIELDS) {
    const value = given[field.key];
    if (typeof value === "number" && wordSettingProblem(field, field.share ? value * 100 : value) === null) settings[field.key] = value;
  }
  if ((settings.easeMisses as number) > (settings.easeWindow as number)) settings.easeMisses = settings.easeWindow as number;
  return settings as unknown as WordSettings;
}
