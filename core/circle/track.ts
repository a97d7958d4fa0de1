import type { CircleSegment } from "../events/circle-plan";
import { keysOf } from "../typed";
import { CALL_AHEAD_SECONDS, type Stretch } from "./schedule";

/** A tone of a sound: from when, how long (s) and how high (Hz). */
export interface TrackTone {
  readonly at: number;
  readonly seconds: number;
  readonly hertz: number;
}

/** What is told on the circle. */
export const CIRCLE_CALLS = ["ahead", "turn", "end", "transition", "stand", "walk", "trot", "canter"] as const;
export type CircleCall = (typeof CIRCLE_CALLS)[number];

/** Sounds a change may have; told apart by count, length and direction, all below where a listening phone takes them for a marker. */
export const CIRCLE_SOUNDS = {
  "one long": [{ at: 0, seconds: 0.6, hertz: 440 }],
  "two even": [0, 0.25].map((at) => ({ at, seconds: 0.18, hertz: 440 })),
  "three even": [0, 0.22, 0.44].map((at) => ({ at, seconds: 0.15, hertz: 440 })),
  "two rising": [
    { at: 0, seconds: 0.2, hertz: 390 },
    { at: 0.25, seconds: 0.3, hertz: 620 },
  ],
  "two falling": [
    { at: 0, seconds: 0.2, hertz: 620 },
    { at: 0.25, seconds: 0.3, hertz: 390 },
  ],
  "three rising": [390, 520, 690].map((hertz, i) => ({ at: i * 0.2, seconds: 0.17, hertz })),
  "long, short": [
    { at: 0, seconds: 0.5, hertz: 350 },
    { at: 0.6, seconds: 0.12, hertz: 350 },
  ],
  "four falling": [660, 550, 440, 330].map((hertz, i) => ({ at: i * 0.16, seconds: 0.14, hertz })),
  "one short": [{ at: 0, seconds: 0.08, hertz: 300 }],
} as const satisfies Readonly<Record<string, readonly TrackTone[]>>;

export type CircleSound = keyof typeof CIRCLE_SOUNDS;
export const CIRCLE_SOUND_NAMES = keysOf(CIRCLE_SOUNDS);

/** Which sound means what, to begin with. The same sound always means the same thing. */
export const USUAL_SOUNDS: Readonly<Record<CircleCall, CircleSound>> = {
  ahead: "one short",
  turn: "long, short",
  end: "four falling",
  transition: "three even",
  stand: "one long",
  walk: "two falling",
  trot: "two rising",
  canter: "three rising",
};

/** A call at a moment of work, in seconds. */
export interface TimedCall {
  readonly atSeconds: number;
  readonly call: CircleCall;
}

/**
 * Every call of a plan: ten seconds ahead, and at each change what comes: turn where only the way changes, otherwise the gait.
 * @param everyMinutes a transition is called so often where the plan has them by time.
 * @example callsOf([{ gait: "walk", side: "L", minutes: 1 }], scheduleOf(...)) // ahead at 50 s, end at 60 s
 */
export function callsOf(
  segments: readonly CircleSegment[],
  stretches: readonly Stretch[],
  everyMinutes: number | null = null,
): TimedCall[] {
  const calls: TimedCall[] = [];
  for (const [i, stretch] of stretches.entries()) {
    const segment = segments[stretch.segment];
    const before = segments[stretches[i - 1]?.segment ?? -1];
    if (segment === undefined) continue;
    if (before !== undefined && before.side !== segment.side && before.gait === segment.gait)
      calls.push({ atSeconds: stretch.startSeconds, call: "turn" });
    else calls.push({ atSeconds: stretch.startSeconds, call: segment.gait });
    const ahead = stretch.endSeconds - CALL_AHEAD_SECONDS;
    if (ahead > stretch.startSeconds) calls.push({ atSeconds: ahead, call: "ahead" });
  }
  const last = stretches.at(-1);
  if (last !== undefined) calls.push({ atSeconds: last.endSeconds, call: "end" });
  if (everyMinutes !== null && last !== undefined)
    for (let at = everyMinutes * 60; at < last.endSeconds; at += everyMinutes * 60) {
      const stretch = stretches.find(({ startSeconds, endSeconds }) => at >= startSeconds && at < endSeconds);
      const stands = stretch === undefined || segments[stretch.segment]?.gait === "stand";
      // Beside a change of the plan it would only be in its way.
      if (!stands && at - stretch.startSeconds > CALL_AHEAD_SECONDS && stretch.endSeconds - at > CALL_AHEAD_SECONDS)
        calls.push({ atSeconds: at, call: "transition" });
    }
  return calls.sort((a, b) => a.atSeconds - b.atSeconds);
}

/**
 * When so many seconds in motion are reached by a plan, in seconds of work; null where it never is.
 * @example secondsInMotion([{ gait: "stand", … 1 min }, { gait: "walk", … 2 min }], stretches, 30) // 90
 */
export function secondsInMotion(segments: readonly CircleSegment[], stretches: readonly Stretch[], movingSeconds: number): number | null {
  let left = movingSeconds;
  for (const { segment, startSeconds, endSeconds } of stretches) {
    if (segments[segment]?.gait === "stand") continue;
    if (endSeconds - startSeconds >= left) return startSeconds + Math.max(0, left);
    left -= endSeconds - startSeconds;
  }
  return null;
}

/** Seconds in motion a plan comes to by a moment of work. @example movingBy(segments, stretches, 90) // 30, where the first minute stands */
export const movingBy = (segments: readonly CircleSegment[], stretches: readonly Stretch[], workedSeconds: number): number =>
  stretches.reduce(
    (sum, { segment, startSeconds, endSeconds }) =>
      segments[segment]?.gait === "stand" ? sum : sum + Math.max(0, Math.min(endSeconds, workedSeconds) - startSeconds),
    0,
  );

/**
 * The calls up to a cap: there the end sounds, called ahead like a change, and nothing after it; a locked phone has no one else to stop it.
 * @example callsUntil(calls, 0) // [{ atSeconds: 0, call: "end" }]
 */
export function callsUntil(calls: readonly TimedCall[], capSeconds: number | null): TimedCall[] {
  if (capSeconds === null) return [...calls];
  const ahead = capSeconds - CALL_AHEAD_SECONDS;
  return [
    ...calls.filter(({ atSeconds, call }) => atSeconds < capSeconds && !(call === "ahead" && atSeconds > ahead)),
    ...(ahead > 0 ? [{ atSeconds: ahead, call: "ahead" as const }] : []),
    { atSeconds: capSeconds, call: "end" as const },
  ].sort((a, b) => a.atSeconds - b.atSeconds);
}

export const TRACK_RATE_HERTZ = 8000;
const HEADER_BYTES = 44;
/** The middle of eight-bit samples: silence. */
const SILENCE = 128;
const LOUD = 100;

/**
 * The plan's sounds as one file (WAV, 8 kHz, 8 bit): one piece of sound goes on playing where a
 * locked phone stops every timer.
 * @param calls with `atSeconds` from the beginning of the track.
 * @param seconds its length; one byte for each sample, so 30 minutes are 14 MB.
 * @example renderTrack([{ atSeconds: 2, call: "trot" }], sounds, 5) // { 0: 82, 1: 73, 2: 70, … }
 */
export function renderTrack(
  calls: readonly TimedCall[],
  sounds: Readonly<Record<CircleCall, CircleSound>>,
  seconds: number,
): Uint8Array<ArrayBuffer> {
  const samples = Math.max(1, Math.ceil(seconds * TRACK_RATE_HERTZ));
  const file = new Uint8Array(HEADER_BYTES + samples).fill(SILENCE, HEADER_BYTES);
  const view = new DataView(file.buffer);
  const word = (at: number, text: string) => {
    for (let i = 0; i < text.length; i++) view.setUint8(at + i, text.charCodeAt(i));
  };
  word(0, "RIFF");
  view.setUint32(4, 36 + samples, true);
  word(8, "WAVEfmt ");
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, TRACK_RATE_HERTZ, true);
  view.setUint32(28, TRACK_RATE_HERTZ, true);
  view.setUint16(32, 1, true);
  view.setUint16(34, 8, true);
  word(36, "data");
  view.setUint32(40, samples, true);
  for (const { atSeconds, call } of calls)
    for (const { at, seconds: long, hertz } of CIRCLE_SOUNDS[sounds[call]]) {
      const first = Math.round((atSeconds + at) * TRACK_RATE_HERTZ);
      const count = Math.round(long * TRACK_RATE_HERTZ);
      const fade = Math.min(80, count / 4);
      for (let i = Math.max(0, -first); i < count && first + i < samples; i++) {
        const shape = Math.min(1, i / fade, (count - i) / fade);
        file[HEADER_BYTES + first + i] = SILENCE + Math.round(LOUD * shape * Math.sin((2 * Math.PI * hertz * i) / TRACK_RATE_HERTZ));
      }
    }
  return file;
}
