import type { CirclePlan } from "../events/circle-plan";
import type { SessionRecord } from "../record";
import { type CircleCaps, type CircleUse, circlingLeft } from "./caps";
import { type ClockFace, clockAt, type Stretch } from "./schedule";
import { movingBy, secondsInMotion } from "./track";
import { type Aid, circleClock, scheduleKept, type Transition } from "./work";

/** How much longer than planned a horse must have stood for the sounds to be made anew. */
const STOOD_STEP_SECONDS = 5;

/** What limits a session on the circle: the caps, what was circled before, what was gone against, and the heat. */
export interface CircleLimits {
  readonly caps: CircleCaps;
  readonly use: Pick<CircleUse, "todayMinutes" | "weekMinutes">;
  /** Keys of cautions gone against with a word of why. */
  readonly against: ReadonlySet<string>;
  /** Where heat stops the work: why, and the minutes at walk that are left; null where it does not. */
  readonly heat: { readonly sentence: string; readonly minutes: number } | null;
}

/** An ask that goes on. */
export interface AskNow {
  readonly from: string;
  readonly to: string;
  readonly aids: readonly Aid[];
  readonly seconds: number;
}

/** What the recorder of a session on the circle shows at a moment. */
export interface CircleNow {
  /** The same list as long as it says the same. */
  readonly stretches: readonly Stretch[];
  readonly face: ClockFace;
  readonly segment: CirclePlan["segments"][number] | null;
  readonly next: CirclePlan["segments"][number] | null;
  readonly side: "L" | "R";
  readonly gait: string;
  readonly clockSeconds: number;
  readonly circledMinutes: number;
  readonly asking: AskNow | null;
  /** The last change of gait that was asked for, ended or not. */
  readonly lastAsk: Transition | null;
  /** The gait that is to come: the one asked for, the next where it is called, or that of the segment. */
  readonly target: string;
  /** Whether minutes on it are circling: all but straight lines. */
  readonly round: boolean;
  /** The cap of its form for a session. */
  readonly cap: CircleCaps["sessionMinutes"];
  /** Why work on the circle ends now, or null. */
  readonly overCap: string | null;
  /** At which second of work the cap is reached, where it is. */
  readonly capSeconds: number | null;
}

/**
 * A session on the circle at a moment, from its log, its plan and its limits
 * alone. Cost grows with its gaits, asks and presses, not with its other facts.
 * @param nowMs milliseconds from the start of work; null before it.
 * @example circleNow(record, plan, limits, 90_000).face.leftSeconds // 30, where the first segment takes two minutes
 */
export function circleNow(record: SessionRecord, plan: CirclePlan, limits: CircleLimits, nowMs: number | null): CircleNow {
  const clock = circleClock(record, nowMs);
  const { segments } = plan;
  const stretches = clock?.stretches ?? scheduleKept(segments, []);
  const workedSeconds = clock?.clockSeconds ?? 0;
  const movingSeconds = clock?.movingSeconds ?? 0;
  const face = clockAt(stretches, workedSeconds);
  const segment = segments[face.stretch?.segment ?? -1] ?? null;
  const next = segments[face.next?.segment ?? -1] ?? null;
  const gait = clock?.gaits.at(-1)?.gait ?? "stand";
  const open = clock?.asking ?? null;
  const asking = open === null ? null : { from: open.from, to: open.to, aids: open.aids, seconds: open.waitedSeconds };
  const round = plan.form !== "lines" || plan.radiusMetres !== null;
  const cap = plan.form === "pen" ? limits.caps.penMinutes : limits.caps.sessionMinutes;
  const { left, overCap } = limitsNow(plan, limits, { round, cap, movingSeconds, workedSeconds });
  // A horse that stood where the plan has it move comes to the cap later; in steps, since each makes the sounds anew.
  const stoodSeconds = movingBy(segments, stretches, workedSeconds) - movingSeconds;
  const lateSeconds = Math.round(stoodSeconds / STOOD_STEP_SECONDS) * STOOD_STEP_SECONDS;
  return {
    ...{ stretches, face, segment, next, gait, asking, round, cap, overCap },
    side: segment?.side ?? segments.at(-1)?.side ?? "L",
    lastAsk: clock?.transitions.at(-1) ?? null,
    clockSeconds: workedSeconds,
    circledMinutes: limits.use.todayMinutes + movingSeconds / 60,
    target: asking?.to ?? (face.called ? next?.gait : undefined) ?? segment?.gait ?? gait,
    capSeconds: left === null ? null : secondsInMotion(segments, stretches, left * 60 + lateSeconds),
  };
}

/** Minutes of circling left, and why it ends where there are none. What was gone against stops nothing, except in a pen: there the cap holds whatever was said. */
function limitsNow(
  { form }: CirclePlan,
  { caps, use, against, heat }: CircleLimits,
  {
    round,
    cap,
    movingSeconds,
    workedSeconds,
  }: Pick<CircleNow, "round" | "cap"> & { readonly movingSeconds: number; readonly workedSeconds: number },
): { readonly left: number | null; readonly overCap: string | null } {
  const dayHolds = round && (form === "pen" || !against.has("too-long"));
  const weekHolds = round && caps.weekMinutes !== null && !against.has("week");
  const left = circlingLeft(use, { day: dayHolds ? cap : null, week: weekHolds ? caps.weekMinutes : null });
  const moved = movingSeconds / 60;
  if (left !== null && moved >= left.value)
    return {
      left: left.value,
      overCap:
        left.by === "day"
          ? `${Math.floor(use.todayMinutes + moved)} min of circling today, the most. ${left.why}`
          : `${Math.floor(use.weekMinutes + moved)} min of circling in seven days, the most. ${left.why}`,
    };
  return { left: left?.value ?? null, overCap: heat !== null && workedSeconds / 60 >= heat.minutes ? heat.sentence : null };
}
