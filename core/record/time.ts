import type { SessionRecord } from "./reduce";
import type { Span } from "./time-line";

/** What tells whether a session is still running. */
export type RunningState = Pick<SessionRecord, "finishMs" | "lastMs" | "runsOnMs"> & { readonly blocks: readonly unknown[] };

/**
 * Whether a session left open has been silent for too long to be running: no
 * tap since `lastMs`, nothing going on by itself, and nobody said it went on.
 * @example isSilent(record, 3540000) // true
 */
export function isSilent(record: RunningState, nowMs: number): boolean {
  const { finishMs, blocks, lastMs, runsOnMs } = record;
  return finishMs === null && blocks.length > 0 && runsOnMs !== null && nowMs - lastMs > runsOnMs;
}

/**
 * Where the session's clock stands: the finish, or `nowMs`. Of one silent for
 * too long the last fact, or the end of the plan that ran by its own clock; of
 * one left open where no present is given, the last fact.
 * @example endOfWorkMs(record) // 0
 */
export function endOfWorkMs(record: SessionRecord, nowMs: number | null = null): number {
  if (record.finishMs !== null) return record.finishMs;
  if (nowMs === null) return record.lastMs;
  return isSilent(record, nowMs) ? Math.max(record.lastMs, record.planRunsUntilMs ?? 0) : nowMs;
}

/**
 * Whether the session is on a break now.
 * @param kind `any`, or only one that was `said`: a silence is one too.
 * @example onBreak(record) // true from "break.start" to "break.end"
 */
export function onBreak({ timeLine }: Pick<SessionRecord, "timeLine">, kind: "any" | "said" = "any"): boolean {
  const last = timeLine.breaks.at(-1);
  return last !== undefined && last.endMs === null && (kind === "any" || last.silent === undefined);
}

/** Seconds of a span that lie outside the breaks. @example secondsWithoutBreaks(0, 0, []) // 0 */
export function secondsWithoutBreaks(startMs: number, endMs: number, breaks: readonly Span[]): number {
  let away = 0;
  for (const pause of breaks) {
    const from = Math.max(startMs, pause.startMs);
    const to = Math.min(endMs, pause.endMs ?? endMs);
    if (to > from) away += to - from;
  }
  return Math.max(0, endMs - startMs - away) / 1000;
}

/**
 * Working time in seconds: first block's start to the finish, less breaks.
 * Preflight, aftercare and later notes lie outside it.
 * @example workSeconds(record) // 9
 */
export function workSeconds(record: SessionRecord, nowMs: number | null = null): number {
  if (record.startWallMs === null) return 0;
  return secondsWithoutBreaks(0, endOfWorkMs(record, nowMs), record.timeLine.breaks);
}

/** A block's own working time in seconds, less breaks. @example blockSeconds(record, 4) // 0 */
export function blockSeconds(record: SessionRecord, blockIndex: number, nowMs: number | null = null): number {
  const block = record.blocks[blockIndex];
  if (block === undefined) throw new RangeError(`blockSeconds: the session has no block at ${blockIndex}`);
  return secondsWithoutBreaks(block.startMs, block.endMs ?? endOfWorkMs(record, nowMs), record.timeLine.breaks);
}

/** Seconds since the last break ended (or work began), or 0 while on a break. @example secondsSinceRest(record) // 40 */
export function secondsSinceRest(record: SessionRecord, nowMs: number | null = null): number {
  const end = endOfWorkMs(record, nowMs);
  const last = record.timeLine.breaks.at(-1);
  if (last === undefined) return end / 1000;
  return last.endMs === null ? 0 : Math.max(0, end - last.endMs) / 1000;
}
