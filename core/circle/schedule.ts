import type { CircleSegment } from "../events/circle-plan";

/** A press that moves the plan's clock, at so many seconds of work since it began. */
export type ScheduleMark = { readonly atSeconds: number; readonly go: number } | { readonly atSeconds: number; readonly more: number };

/** One segment as it is run: its number from 0, from when to when, in seconds of work. */
export interface Stretch {
  readonly segment: number;
  readonly startSeconds: number;
  readonly endSeconds: number;
}

/**
 * When each segment runs. It follows from the plan and the presses alone, so a
 * phone that was locked, a reload or a second screen come to the same.
 * @param marks in order: `go` begins a segment now, `more` makes the one that runs longer by so many seconds.
 * @example scheduleOf([{ gait: "walk", side: "L", minutes: 1 }], []) // [{ segment: 0, startSeconds: 0, endSeconds: 60 }]
 */
export function scheduleOf(segments: readonly CircleSegment[], marks: readonly ScheduleMark[]): Stretch[] {
  const from = (segment: number, startSeconds: number): Stretch[] => {
    let at = startSeconds;
    return segments.slice(segment).map(({ minutes }, i) => {
      const stretch = { segment: segment + i, startSeconds: at, endSeconds: at + minutes * 60 };
      at = stretch.endSeconds;
      return stretch;
    });
  };
  let stretches = from(0, 0);
  for (const mark of marks) {
    const { atSeconds } = mark;
    const past = stretches.filter(({ startSeconds }) => startSeconds <= atSeconds);
    if ("go" in mark) {
      const cut = past
        .map((one) => ({ ...one, endSeconds: Math.min(one.endSeconds, atSeconds) }))
        .filter((one) => one.endSeconds > one.startSeconds);
      stretches = [...cut, ...from(mark.go, atSeconds)];
      continue;
    }
    // What has ended is over: a minute more at the very end makes the last one go on from now.
    const running = past.at(-1);
    if (running === undefined) continue;
    const endSeconds = Math.max(running.endSeconds, running.endSeconds < atSeconds ? atSeconds : 0) + mark.more;
    stretches = [...past.slice(0, -1), { ...running, endSeconds }, ...from(running.segment + 1, endSeconds)];
  }
  return stretches;
}

/** What the large clock shows. */
export interface ClockFace {
  /** Place among the stretches; null when all are over. */
  readonly running: number | null;
  readonly stretch: Stretch | null;
  readonly next: Stretch | null;
  readonly elapsedSeconds: number;
  readonly leftSeconds: number;
  /** Until the end of the plan. */
  readonly leftInAllSeconds: number;
  /** Whether the next change is called ahead now. */
  readonly called: boolean;
}

/** A change is called so long ahead (common practice, no source). */
export const CALL_AHEAD_SECONDS = 10;

/**
 * The clock at a moment of work. At a boundary the next segment runs.
 * @example clockAt(stretches, 480) // { running: null, stretch: null, next: null, … }
 */
export function clockAt(stretches: readonly Stretch[], workedSeconds: number): ClockFace {
  const found = stretches.findIndex(({ endSeconds }) => workedSeconds < endSeconds);
  const stretch = stretches[found] ?? null;
  const end = stretches.at(-1)?.endSeconds ?? 0;
  if (stretch === null)
    return {
      running: null,
      stretch: null,
      next: null,
      elapsedSeconds: workedSeconds - end,
      leftSeconds: 0,
      leftInAllSeconds: 0,
      called: false,
    };
  const leftSeconds = stretch.endSeconds - workedSeconds;
  return {
    running: found,
    stretch,
    next: stretches[found + 1] ?? null,
    elapsedSeconds: workedSeconds - stretch.startSeconds,
    leftSeconds,
    leftInAllSeconds: end - workedSeconds,
    called: leftSeconds <= CALL_AHEAD_SECONDS,
  };
}
