import type { Payload } from "../events";
import type { Outcome } from "../evidence/group";
import { shortfallOf } from "./met-check";
import type { Trial } from "./trial";
import type { TrialSurroundings } from "./trial-builder";

const textOf = (value: string | null | undefined) => (value === undefined || value === "" ? null : value);
const flagOf = (value: number | null | undefined) => (value === 1 ? true : value === 0 ? false : null);

/** What came after a whole-trial event and belongs to it. */
export interface AfterWholeTrial {
  markMs: number | null;
  feedMs: number | null;
  pieces: number;
  ease: number | null;
  movement: number | null;
  measured: { value: number; unit: string } | null;
  reinforcerKinds: string[];
  eventIds: string[];
}

/** A trial logged at once (tally, late entry, import), still taking marks, food and grades. */
export interface WholeTrialDraft {
  readonly eventId: string;
  readonly ms: number;
  readonly payload: Payload<"trial">;
  readonly around: TrialSurroundings;
  readonly after: AfterWholeTrial;
  /** What the handler did for it, and how often. */
  readonly handlerActs: Readonly<Record<string, number>>;
  /** The worst sign since the answer before. */
  readonly troubled: Trial["troubled"];
}

/**
 * A trial that was tapped as a whole, as it stands before it is checked against its rung.
 * @example draftWholeTrial(id, 4000, { outcome: "met", phase: 1 }, around).outcome // "met"
 */
export function draftWholeTrial(
  eventId: string,
  ms: number,
  payload: Payload<"trial">,
  around: TrialSurroundings,
  handlerActs: Readonly<Record<string, number>> = {},
  troubled: Trial["troubled"] = null,
): WholeTrialDraft {
  return {
    eventId,
    ms,
    payload,
    around,
    handlerActs,
    troubled,
    after: { markMs: null, feedMs: null, pieces: 0, ease: null, movement: null, measured: null, reinforcerKinds: [], eventIds: [eventId] },
  };
}

/** What tells that a pad gave something, whatever the schedule says. */
type Given = Pick<Trial, "markMs" | "feedMs" | "reinforcerKinds">;

/** Whether a pad said that the horse got something: a mark, food, or what stands in its place. @example gaveByPad({ … }) // true */
export const gaveByPad = ({ markMs, feedMs, reinforcerKinds }: Given) => markMs !== null || feedMs !== null || reinforcerKinds.length > 0;

/**
 * A tally of met that fell short of its rung or its bar earned nothing: what
 * its pad would have stood for was not given. What another pad gave was, and
 * is a slip. Also an answer that the trainer counts as met keeps what it earned.
 * @param given pieces of food that a pad gave to it.
 * @example rewardedAsEarned(trial, 0) // { number: 1, blockIndex: 0, askMs: 2050, … }
 */
export function rewardedAsEarned(trial: Trial, given: number): Trial {
  if (trial.logged !== "tally" || trial.tapped !== "met" || trial.outcome !== "try") return trial;
  const byPad = gaveByPad(trial);
  return {
    ...trial,
    reinforced: byPad,
    marked: trial.markMs !== null,
    reinforcers: given,
    faults: byPad ? [...trial.faults, "rewarded below the rung"] : trial.faults,
  };
}

/**
 * Turns a whole-trial event into a trial.
 * @param scheduleReinforces whether the rung's schedule reinforces this trial if it is met; null where it does not say.
 * @example buildWholeTrial(draft, 1, true) // { number: 1, blockIndex: 0, askMs: 8595, … }
 */
export function buildWholeTrial(draft: WholeTrialDraft, number: number, scheduleReinforces: boolean | null): Trial {
  const { payload, around, after, handlerActs } = draft;
  const tapped: Outcome = payload.outcome;
  const good = tapped === "met" || tapped === "try";
  const askMs = payload.t_s == null ? draft.ms : Math.round(payload.t_s * 1000);
  const side = payload.side === "L" || payload.side === "R" ? payload.side : around.side;
  const phase = payload.phase ?? null;
  const latencySeconds = good ? (payload.latency_s ?? null) : null;
  const waitedSeconds = payload.waited_s ?? payload.latency_s ?? null;
  const value = after.measured?.value ?? payload.value ?? null;
  const ease = after.ease ?? payload.ease ?? null;
  const movement = after.movement ?? payload.movement ?? null;
  const stayAsked = around.criterion?.stay_s !== undefined;
  const shortfall =
    tapped === "met" && around.criterion !== null
      ? shortfallOf(around.criterion, {
          phase,
          latencySeconds,
          value,
          stayedSeconds: stayAsked ? value : null,
          side,
          ease,
          movement,
          handlerActs,
        })
      : null;
  const seenReinforcer = gaveByPad(after);
  const told = flagOf(payload.reinforced);
  const bySchedule = tapped === "met" ? scheduleReinforces : tapped === "try" ? null : false;
  return {
    number,
    blockIndex: around.blockIndex,
    askMs,
    endMs: askMs + Math.round((waitedSeconds ?? 0) * 1000),
    answerMs: good && latencySeconds !== null ? askMs + Math.round(latencySeconds * 1000) : null,
    markMs: after.markMs,
    feedMs: after.feedMs,
    tapped,
    outcome: shortfall === null ? tapped : "try",
    shortfall,
    overridden: false,
    side,
    zone: textOf(payload.zone) ?? around.zone,
    phase,
    wrongBefore: payload.wrong_before ?? 0,
    latencySeconds,
    waitedSeconds,
    firstAnswerSeconds: null,
    releaseLagSeconds: payload.release_lag_s ?? null,
    markLagSeconds: payload.mark_lag_s ?? null,
    feedDelaySeconds: payload.feed_delay_s ?? null,
    released: flagOf(payload.released),
    marked: after.markMs !== null ? true : flagOf(payload.marked),
    reinforced: seenReinforcer ? good : (told ?? bySchedule),
    reinforcers: after.feedMs === null ? (payload.reinforcers ?? null) : (payload.reinforcers ?? 0) + after.pieces,
    value,
    unit: after.measured?.unit ?? textOf(payload.unit),
    endedBy: payload.ended_by === "" ? null : (payload.ended_by ?? null),
    ease,
    movement,
    handler: around.handler,
    handlerActs,
    helped: null,
    faults:
      textOf(payload.faults)
        ?.split(";")
        .map((f) => f.trim()) ?? [],
    logged: payload.logged == null || payload.logged === "" ? "tally" : payload.logged,
    note: textOf(payload.note),
    troubled: draft.troubled,
    safety: false,
    phaseSteps: phase === null ? [] : [{ ms: askMs, phase }],
    reinforcerKinds: after.reinforcerKinds,
    eventId: draft.eventId,
    eventIds: after.eventIds,
  };
}
