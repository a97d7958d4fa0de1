import { SILENCE_MINUTES } from "../silence";

/**
 * Every threshold of the word. All are settings; the defaults are common
 * practice, no source, unless docs/measures.md says how they were chosen.
 */
export interface WordSettings {
  /** Minutes of work after which a rest is due. */
  readonly restAfterMinutes: number;
  /** Trials after which a rest is due. */
  readonly restAfterTrials: number;
  /** Share of the usual minutes and trials that is left in heat to watch, and in heat that cuts work. */
  readonly heatWatchShare: number;
  readonly heatCutShare: number;
  /** Breathing at so many times the resting rate calls for a rest. */
  readonly restBreathingTimes: number;
  /** Minutes of work after which it is time to finish. */
  readonly finishAfterMinutes: number;
  /** So many minutes before that, or before a limit of the day, the work is brought to its end. */
  readonly finishLeadMinutes: number;
  /** A session's plan, in blocks of the planned repetitions. */
  readonly planBlocks: number;
  /** Answers on this rung today before a best one can be a clear best. */
  readonly bestAfterTrials: number;
  /** By what share of the best value so far a new value must pass it to be a clear best. */
  readonly bestMargin: number;
  /** Misses and refusals running that call for easing. */
  readonly easeRun: number;
  /** Misses and refusals among the last `easeWindow` trials that call for easing. */
  readonly easeMisses: number;
  readonly easeWindow: number;
  /** The most that Ease may come in a block of ten from a horse true to the rule; a laxer rule gets higher thresholds until it holds. */
  readonly easeMostShare: number;
  /** Tension signs within the window that call for easing, or for a rest on the first rung. */
  readonly tensionSigns: number;
  readonly tensionWindowSeconds: number;
  /** How often Ease has to come on a rung before it is to be split. */
  readonly splitAfterEases: number;
  /** Sessions on a rung without gain before it is to be split, each with so many trials. */
  readonly noGainSessions: number;
  readonly noGainTrials: number;
  /** Difference of the success shares of the sides that calls for the weaker one, with so many trials on each. */
  readonly sideGap: number;
  readonly sideGapTrials: number;
  /** How much more of the planned repetitions the weaker side gets. */
  readonly weakerSideTimes: number;
  /** Graded answers needed where the rung asks for ease. */
  readonly easeGraded: number;
  /** How many trials a word stands before a lower one may take its place. */
  readonly standsForTrials: number;
  /** Minutes without a tap after which it is a pause and no work. */
  readonly silenceMinutes: number;
}

export const DEFAULT_WORD_SETTINGS: WordSettings = {
  restAfterMinutes: 8,
  restAfterTrials: 30,
  heatWatchShare: 0.75,
  heatCutShare: 0.5,
  restBreathingTimes: 3,
  finishAfterMinutes: 20,
  finishLeadMinutes: 2,
  planBlocks: 6,
  bestAfterTrials: 12,
  bestMargin: 0.2,
  easeRun: 3,
  easeMisses: 4,
  easeWindow: 7,
  easeMostShare: 0.1,
  tensionSigns: 3,
  tensionWindowSeconds: 60,
  splitAfterEases: 2,
  noGainSessions: 3,
  noGainTrials: 5,
  sideGap: 0.3,
  sideGapTrials: 5,
  weakerSideTimes: 1.5,
  easeGraded: 3,
  standsForTrials: 3,
  silenceMinutes: SILENCE_MINUTES,
};
