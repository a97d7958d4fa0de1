import type { Outcome } from "../evidence/group";
import { shortfallOf } from "./met-check";
import type { LoggedWay, Trial } from "./trial";
import type { TrialSurroundings } from "./trial-builder";

const numberOf = (value: unknown) => (typeof value === "number" ? value : null);
const textOf = (value: unknown) => (typeof value === "string" && value !== "" ? value : null);
const flagOf = (value: unknown) => (value === 1 ? true : value === 0 ? false : null);

/** What came after a whole-trial event and belongs to it. */
export interface AfterWholeTrial {
  markMs: number | null;
  feedMs: number | null;
  pieces: number;
  ease: number | null;
  measured: { value: number; unit: string } | null;
  reinforcerKinds: string[];
  eventIds: string[];
}

/** A trial logged at once (tally, late entry, import), still taking marks, food and grades. */
export interface WholeTrialDraft {
  readonly eventId: string;
  readonly ms: number;
  readonly payload: Readonly<Record<string, unknown>>;
  readonly around: TrialSurroundings;
  readonly after: AfterWholeTrial;
}

export function draftWholeTrial(
  eventId: string,
  ms: number,
  payload: Readonly<Record<string, unknown>>,
  around: TrialSurroundings,
): WholeTrialDraft {
  return {
    eventId,
    ms,
    payload,
    around,
    after: { markMs: null, feedMs: null, pieces: 0, ease: null, measured: null, reinforcerKinds: [], eventIds: [eventId] },
  };
}

/**
 * Turns a whole-trial event into a trial.
 * @param scheduleReinforces whether the rung's schedule reinforces this trial if it is met; null where it does not say.
 */
export function buildWholeTrial(draft: WholeTrialDraft, number: number, scheduleReinforces: boolean | null): Trial {
  const { payload, around, after } = draft;
  const tapped = payload.outcome as Outcome;
  const good = tapped === "met" || tapped === "try";
  const askMs = numberOf(payload.t_s) === null ? draft.ms : Math.round((payload.t_s as number) * 1000);
  const side = payload.side === "L" || payload.side === "R" ? payload.side : around.side;
  const phase = numberOf(payload.phase);
  const latencySeconds = good ? numberOf(payload.latency_s) : null;
  const waitedSeconds = numberOf(payload.waited_s) ?? (good ? latencySeconds : numberOf(payload.latency_s));
  const value = after.measured?.value ?? numberOf(payload.value);
  const ease = after.ease ?? numberOf(payload.ease);
  const stayAsked = around.criterion?.stay_s !== undefined;
  const shortfall =
    tapped === "met" && around.criterion !== null
      ? shortfallOf(around.criterion, { phase, latencySeconds, value, stayedSeconds: stayAsked ? value : null, side, ease })
      : null;
  const seenReinforcer = after.markMs !== null || after.feedMs !== null || after.reinforcerKinds.length > 0;
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
    wrongBefore: numberOf(payload.wrong_before) ?? 0,
    latencySeconds,
    waitedSeconds,
    firstAnswerSeconds: null,
    releaseLagSeconds: numberOf(payload.release_lag_s),
    markLagSeconds: numberOf(payload.mark_lag_s),
    feedDelaySeconds: numberOf(payload.feed_delay_s),
    released: flagOf(payload.released),
    marked: after.markMs !== null ? true : flagOf(payload.marked),
    reinforced: seenReinforcer ? good : (told ?? bySchedule),
    reinforcers: after.feedMs === null ? numberOf(payload.reinforcers) : (numberOf(payload.reinforcers) ?? 0) + after.pieces,
    value,
    unit: after.measured?.unit ?? textOf(payload.unit),
    endedBy: payload.ended_by === "criterion" || payload.ended_by === "left" || payload.ended_by === "handler" ? payload.ended_by : null,
    ease,
    helped: null,
    faults:
      textOf(payload.faults)
        ?.split(";")
        .map((f) => f.trim()) ?? [],
    logged: (textOf(payload.logged) as LoggedWay | null) ?? "tally",
    note: textOf(payload.note),
    phaseSteps: phase === null ? [] : [{ ms: askMs, phase }],
    reinforcerKinds: after.reinforcerKinds,
    eventId: draft.eventId,
    eventIds: after.eventIds,
  };
}
