import { fieldsOf } from "../typed";
import type { Trial } from "./trial";

/** What a trial holds where nothing was logged. */
const NOTHING: Omit<Trial, "number" | "askMs" | "endMs" | "tapped" | "outcome" | "eventId" | "eventIds"> = {
  blockIndex: null,
  answerMs: null,
  markMs: null,
  feedMs: null,
  shortfall: null,
  overridden: false,
  side: null,
  zone: null,
  wrongBefore: 0,
  firstAnswerSeconds: null,
  value: null,
  unit: null,
  endedBy: null,
  ease: null,
  movement: null,
  handler: null,
  handlerActs: {},
  helped: null,
  faults: [],
  logged: null,
  note: null,
  troubled: null,
  safety: false,
  phaseSteps: [],
  reinforcerKinds: [],
  phase: null,
  latencySeconds: null,
  waitedSeconds: null,
  releaseLagSeconds: null,
  markLagSeconds: null,
  feedDelaySeconds: null,
  released: null,
  marked: null,
  reinforced: null,
  reinforcers: null,
};

/** A trial on its way to a browser: what it does not hold is left out. */
export type SlimTrial = Partial<Trial> & Pick<Trial, "number" | "askMs" | "endMs" | "tapped" | "outcome" | "eventId">;

const isNothing = (key: string, value: unknown) => {
  const nothing = fieldsOf(NOTHING)[key];
  if (value === nothing) return true;
  return typeof nothing === "object" && nothing !== null && typeof value === "object" && value !== null && Object.keys(value).length === 0;
};

/**
 * Leaves out what a trial does not hold: mostly two thirds of it.
 * @example slimTrial(trial) // { number: 1, blockIndex: 0, askMs: 3107, … }
 */
export function slimTrial(trial: Trial): SlimTrial {
  const kept = Object.entries(trial).filter(([key, value]) => !(key in NOTHING && isNothing(key, value)));
  // The only event of a whole trial is the one that names it.
  const only = trial.eventIds.length === 1 && trial.eventIds[0] === trial.eventId;
  return Object.fromEntries(only ? kept.filter(([key]) => key !== "eventIds") : kept) as unknown as SlimTrial;
}

/** And back. @example wholeTrial(slimTrial(trial)) // the same */
export const wholeTrial = (slim: SlimTrial): Trial => ({ ...NOTHING, eventIds: [slim.eventId], ...slim });
