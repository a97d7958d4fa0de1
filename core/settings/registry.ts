import { keysOf, recordOf } from "../typed";
/** One threshold of the yard: what it is called on screen, its bounds and what it is where nobody changed it. Shares are typed in per cent. */
export interface SettingField {
  /** What it belongs to. */
  readonly group: string;
  readonly label: string;
  readonly unit: string;
  readonly usual: number;
  readonly least: number;
  readonly most: number;
  readonly share?: boolean;
  readonly whole?: boolean;
  /** 1 for yes, 0 for no: a box to tick. */
  readonly yesNo?: boolean;
}

/**
 * Every threshold of the yard, in the order of the page that shows them. The
 * form, the route that keeps them, the word, the next start, the card and the
 * pages read them here and nowhere else. What they are by default is common
 * practice, no source, unless docs/measures.md says how it was chosen.
 */
export const SETTING_FIELDS = {
  restAfterMinutes: { group: "Break", label: "Break after", unit: "min of work", usual: 8, least: 1, most: 60 },
  restAfterTrials: { group: "Break", label: "Break after", unit: "asks", usual: 30, least: 3, most: 200, whole: true },
  // Wet-bulb globe temperature: on the cautious side of published guidance for competition, from memory.
  heatWatchCelsius: { group: "Break", label: "Heat to watch from", unit: "°C WBGT", usual: 25, least: 15, most: 33 },
  heatCutCelsius: { group: "Break", label: "Heat that cuts work from", unit: "°C WBGT", usual: 26, least: 15, most: 33 },
  heatStopCelsius: { group: "Break", label: "No work in heat above", unit: "°C WBGT", usual: 30, least: 15, most: 33 },
  // Of the usual minutes and trials, what is left in heat.
  heatWatchShare: { group: "Break", label: "In heat to watch, of that", unit: "%", usual: 0.75, least: 10, most: 100, share: true },
  heatCutShare: { group: "Break", label: "In heat that cuts work, of that", unit: "%", usual: 0.5, least: 10, most: 100, share: true },
  restBreathingTimes: { group: "Break", label: "Break when breathing is", unit: "times resting", usual: 3, least: 1.25, most: 10 },
  finishAfterMinutes: { group: "Finish", label: "Finish after", unit: "min of work", usual: 20, least: 2, most: 120 },
  // Before that, or before a limit of the day, the work is brought to its end.
  finishLeadMinutes: { group: "Finish", label: "Bring it to its end before that", unit: "min", usual: 2, least: 0, most: 20 },
  planBlocks: { group: "Finish", label: "A session's plan", unit: "blocks", usual: 5, least: 1, most: 40, whole: true },
  bestAfterTrials: { group: "Finish", label: "A clear best not before", unit: "asks today", usual: 12, least: 3, most: 100, whole: true },
  bestMargin: { group: "Finish", label: "A clear best passes the best so far by", unit: "%", usual: 0.2, least: 1, most: 200, share: true },
  easeRun: { group: "Go back", label: "Go back after", unit: "missed or refused running", usual: 3, least: 2, most: 10, whole: true },
  easeMisses: {
    group: "Go back",
    label: "Go back after",
    unit: "missed or refused among the last",
    usual: 4,
    least: 2,
    most: 12,
    whole: true,
  },
  easeWindow: { group: "Go back", label: "The last are", unit: "asks", usual: 7, least: 3, most: 12, whole: true },
  easeRefusals: { group: "Go back", label: "Go back after", unit: "refused among the last", usual: 2, least: 1, most: 12, whole: true },
  easeRefusalWindow: { group: "Go back", label: "Of refusals the last are", unit: "asks", usual: 5, least: 1, most: 12, whole: true },
  // A laxer rule gets higher thresholds until it holds.
  easeMostShare: {
    group: "Go back",
    label: "Told to go back though true to the rule, at most in",
    unit: "% of blocks of ten",
    usual: 0.1,
    least: 1,
    most: 50,
    share: true,
  },
  tensionSigns: { group: "Go back", label: "Go back after", unit: "tension signs", usual: 3, least: 1, most: 20, whole: true },
  tensionWindowSeconds: { group: "Go back", label: "Seen within", unit: "s", usual: 60, least: 10, most: 600 },
  wrongRarerFrom: {
    group: "Go back",
    label: "A rung lower next time from so many wrong choices that met pressure",
    unit: "of them in a session",
    usual: 6,
    least: 3,
    most: 100,
    whole: true,
  },
  wrongMost: {
    group: "Go back",
    label: "Wrong choices that may meet pressure",
    unit: "a session",
    usual: 15,
    least: 1,
    most: 200,
    whole: true,
  },
  sureTrials: {
    group: "Go back",
    label: "A rung that is mostly met has at least",
    unit: "asks",
    usual: 5,
    least: 2,
    most: 50,
    whole: true,
  },
  sureShare: { group: "Go back", label: "And met of them", unit: "%", usual: 0.8, least: 50, most: 100, share: true },
  splitAfterEases: {
    group: "Add a step",
    label: "Add a step when it goes back for the time",
    unit: "on a rung",
    usual: 2,
    least: 1,
    most: 10,
    whole: true,
  },
  noGainSessions: {
    group: "Add a step",
    label: "Add a step without gain over",
    unit: "sessions",
    usual: 3,
    least: 2,
    most: 12,
    whole: true,
  },
  noGainTrials: { group: "Add a step", label: "Each with at least", unit: "asks", usual: 5, least: 1, most: 50, whole: true },
  sideGapTrials: {
    group: "Change side",
    label: "To the weaker side, where one is known, after",
    unit: "asks",
    usual: 5,
    least: 2,
    most: 50,
    whole: true,
  },
  weakerSideTimes: { group: "Change side", label: "The weaker side gets", unit: "times the plan", usual: 1.5, least: 1, most: 5 },
  easeGraded: {
    group: "Up",
    label: "If the rung asks for calm, graded at least",
    unit: "answers",
    usual: 3,
    least: 1,
    most: 20,
    whole: true,
  },
  evidenceMaxAgeDays: { group: "Up", label: "Asks speak for moving on for", unit: "days", usual: 21, least: 3, most: 110, whole: true },
  poolHandlers: {
    group: "Up",
    label: "Asks of other people on the same rung count too",
    unit: "",
    usual: 0,
    least: 0,
    most: 1,
    whole: true,
    yesNo: true,
  },
  standsForTrials: { group: "All advice", label: "An advice stands for", unit: "asks", usual: 3, least: 1, most: 10, whole: true },
  silenceMinutes: { group: "Pause", label: "Without a tap it is a pause after", unit: "min", usual: 20, least: 2, most: 240 },
  sidesDays: { group: "Know", label: "Sides are compared over the last", unit: "days", usual: 60, least: 7, most: 365, whole: true },
  // Walls of the yard's own, off until somebody wants them.
  youngTyingYears: {
    group: "Young horses",
    label: "No hard tying under",
    unit: "years (0: only said)",
    usual: 0,
    least: 0,
    most: 6,
    whole: true,
  },
  youngCirclingYears: {
    group: "Young horses",
    label: "No circling under",
    unit: "years (0: only said)",
    usual: 0,
    least: 0,
    most: 6,
    whole: true,
  },
  circleMinutes: {
    group: "Circle work",
    label: "Circling in a day, all sessions and ways together, at most",
    unit: "min",
    usual: 30,
    least: 1,
    most: 120,
  },
  circleWeekMinutes: {
    group: "Circle work",
    label: "Circling in seven days, at most",
    unit: "min (0: only counted)",
    usual: 0,
    least: 0,
    most: 600,
  },
  circleRestDays: {
    group: "Circle work",
    label: "With both ways in a session, days between",
    unit: "days",
    usual: 1,
    least: 0,
    most: 14,
    whole: true,
  },
  circleYoungYears: { group: "Circle work", label: "Young is under", unit: "years", usual: 5, least: 0, most: 10, whole: true },
  circleYoungMinutes: {
    group: "Circle work",
    label: "Circling of the young in a day, at most",
    unit: "min",
    usual: 20,
    least: 1,
    most: 60,
  },
  circleYoungVisits: {
    group: "Circle work",
    label: "Circling of the young in seven days, at most",
    unit: "sessions (0: only counted)",
    usual: 1,
    least: 0,
    most: 7,
    whole: true,
  },
  circleNewKitMinutes: { group: "Circle work", label: "First time in new kit, walk at most", unit: "min", usual: 10, least: 1, most: 30 },
  circleCanterMetres: { group: "Circle work", label: "Canter on circles across at least", unit: "m", usual: 20, least: 8, most: 60 },
  penMinutes: { group: "Circle work", label: "Driven in a pen without a circle, at most", unit: "min", usual: 15, least: 1, most: 60 },
  coolWithinShare: {
    group: "Circle work",
    label: "Breath is down when it is above resting by at most (8 a minute always pass)",
    unit: "%",
    usual: 0.25,
    least: 5,
    most: 100,
    share: true,
  },
  shownStaleDays: {
    group: "Know",
    label: "What was shown is to be checked after",
    unit: "days",
    usual: 90,
    least: 7,
    most: 730,
    whole: true,
  },
  watchLeastMinutes: { group: "Know", label: "No rate of signs from under", unit: "min", usual: 2, least: 0.5, most: 30 },
  usualDays: { group: "Know", label: "A horse's own usual goes back", unit: "days", usual: 180, least: 14, most: 3650, whole: true },
} as const satisfies Readonly<Record<string, SettingField>>;

export type SettingKey = keyof typeof SETTING_FIELDS;

/** The thresholds of a yard. */
export type YardSettings = Readonly<Record<SettingKey, number>>;

export const SETTING_KEYS = keysOf(SETTING_FIELDS);

const fieldOf = (key: SettingKey): SettingField => SETTING_FIELDS[key];

export const DEFAULT_SETTINGS: YardSettings = recordOf(SETTING_KEYS, (key) => fieldOf(key).usual);

/**
 * Why a typed setting cannot be taken, or null. The value is as typed: shares in per cent.
 * @example settingProblem("restAfterMinutes", -1) // "From 1 to 60."
 */
export function settingProblem(key: SettingKey, typed: number): string | null {
  const { least, most, whole } = fieldOf(key);
  if (!Number.isFinite(typed)) return "A number is needed.";
  if (typed < least || typed > most) return `From ${least} to ${most}.`;
  return whole === true && !Number.isInteger(typed) ? "A whole number is needed." : null;
}

/** A setting's value as it is typed. @example asTyped("easeRun", 3) // 3 */
export const asTyped = (key: SettingKey, value: number): number => (fieldOf(key).share ? Math.round(value * 1000) / 10 : value);
/** And back. @example fromTyped("easeRun", 3) // 3 */
export const fromTyped = (key: SettingKey, typed: number): number => (fieldOf(key).share ? typed / 100 : typed);

/**
 * Settings as they were kept, with the default for whatever is missing or out of its bounds.
 * @example settingsFrom({ standsForTrials: 1 }) // { restAfterMinutes: 8, restAfterTrials: 30, heatWatchCelsius: 25, … }
 */
export function settingsFrom(kept: unknown): YardSettings {
  const given = typeof kept === "object" && kept !== null ? kept : {};
  const settings: Record<SettingKey, number> = { ...DEFAULT_SETTINGS };
  for (const key of SETTING_KEYS) {
    const value: unknown = Reflect.get(given, key);
    if (typeof value === "number" && settingProblem(key, fieldOf(key).share ? value * 100 : value) === null) settings[key] = value;
  }
  settings.easeMisses = Math.min(settings.easeMisses, settings.easeWindow);
  settings.heatCutCelsius = Math.min(settings.heatCutCelsius, settings.heatStopCelsius);
  settings.heatWatchCelsius = Math.min(settings.heatWatchCelsius, settings.heatCutCelsius);
  return settings;
}
