import { rateRatio } from "../evidence";
import { meetsPressure } from "../ladder";
import { endOfWorkMs, type SessionRecord, secondsWithoutBreaks, workSeconds } from "../record";
import { DEFAULT_SETTINGS, type YardSettings } from "../settings";
import { wrongsAtWork } from "./wrong-choices";

/** Why pressure on wrong choices is to be eased, with its numbers. */
export interface WrongCaution {
  readonly kind: "most" | "tension";
  readonly words: string;
  readonly numbers: Readonly<Record<string, number>>;
}

/** Seconds after a wrong choice in which a sign of tension is put down to it (common practice, no source). */
export const AFTER_WRONG_SECONDS = 30;

/** Fewer wrong choices than this say nothing about tension with them. */
const FEWEST_FOR_TENSION = 4;

/** It is looked at again and again, so a difference is called late. */
const TENSION_CALLED_AT = 0.01;

const WHY = "Pressure that does not make a choice rarer only adds worry.";

/** Signs of tension soon after a wrong choice and at other times, each with its minutes. */
function tensionBeside(record: SessionRecord, spans: readonly { readonly startMs: number; readonly endMs: number }[], endMs: number) {
  const { breaks } = record.timeLine;
  const merged: { startMs: number; endMs: number }[] = [];
  for (const { startMs, endMs: until } of spans) {
    const last = merged.at(-1);
    if (last !== undefined && startMs <= last.endMs) last.endMs = Math.max(last.endMs, until);
    else merged.push({ startMs, endMs: until });
  }
  let near = 0;
  let far = 0;
  for (const fact of record.facts) {
    if (fact.type !== "signal" || fact.payload.class !== "tension" || fact.ms < 0 || fact.ms > endMs) continue;
    if (merged.some(({ startMs, endMs: until }) => startMs <= fact.ms && fact.ms <= until)) near++;
    else far++;
  }
  const nearMinutes = merged.reduce((sum, span) => sum + secondsWithoutBreaks(span.startMs, span.endMs, breaks), 0) / 60;
  return { near, far, nearMinutes };
}

/**
 * Whether what wrong choices meet is to be eased: there were as many as a
 * session may have, or signs of tension come with them. Whether they become
 * rarer is not said: bouts and the order of a session look the same. Choices that met no pressure do not count.
 * @param nowMs from the start of work; null for the end of the session.
 * @returns null where nothing speaks for it.
 * @example wrongChoiceCaution(record, null) // { kind: "most", … }
 */
export function wrongChoiceCaution(
  record: SessionRecord,
  nowMs: number | null,
  settings: YardSettings = DEFAULT_SETTINGS,
): WrongCaution | null {
  const pressed = wrongsAtWork(record, nowMs).filter(({ met }) => meetsPressure(met));
  const count = pressed.length;
  if (count === 0) return null;
  if (count >= settings.wrongMost)
    return {
      kind: "most",
      words: `${count} wrong choices met with pressure today, the most that is set for a session. ${WHY} Make the right choice easier instead.`,
      numbers: { wrong: count, of: settings.wrongMost },
    };
  if (count < FEWEST_FOR_TENSION) return null;
  const endMs = endOfWorkMs(record, nowMs);
  const spans = pressed.map(({ startMs, endMs: until }) => ({
    startMs,
    endMs: Math.min(endMs, (until ?? endMs) + AFTER_WRONG_SECONDS * 1000),
  }));
  const { near, far, nearMinutes } = tensionBeside(record, spans, endMs);
  const farMinutes = workSeconds(record, nowMs) / 60 - nearMinutes;
  if (near === 0 || nearMinutes <= 0 || farMinutes <= 0) return null;
  const ratio = rateRatio({ count: near, minutes: nearMinutes }, { count: far, minutes: farMinutes });
  if (ratio === null || ratio.ratio <= 1 || ratio.p >= TENSION_CALLED_AT) return null;
  return {
    kind: "tension",
    words: `Tension comes with it: ${near} signs within ${AFTER_WRONG_SECONDS} s of a wrong choice, ${far} in all the other work. ${WHY}`,
    numbers: { wrong: count, near, far },
  };
}
