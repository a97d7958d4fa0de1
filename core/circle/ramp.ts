import type * as z from "zod";
import { addDays, type Day } from "../day";
import type { Ways } from "../events/circle-plan";
import { daysBetween } from "../welfare";
import type { rampLoadDocument } from "./document";

/** One session's minutes each way, and whether there are obstacles on the circle. */
export type RampLoad = z.infer<typeof rampLoadDocument>;

/** What changed against the step before. */
export type RampChange = "start" | "shift" | "total" | "obstacles" | "canter";

export type RampStep = RampLoad & { readonly change: RampChange };

/** What a ramp may never pass. */
export interface RampCaps {
  /** Minutes of circling in one session. */
  readonly sessionMinutes: number;
  /** Minutes in seven days; null caps nothing. */
  readonly weekMinutes: number | null;
  /** Sessions in seven days; null caps nothing. */
  readonly weekVisits: number | null;
  /** Whether the circle is wide enough for canter. */
  readonly canter: boolean;
}

export interface RampInput {
  readonly start: RampLoad;
  readonly goal: RampLoad;
  readonly sessionsAWeek: number;
  readonly ways: Ways;
  readonly caps: RampCaps;
}

/** Circling minutes of one session at a load. @example sessionMinutesOf({ … }, "both") // 0 */
export const sessionMinutesOf = ({ walk, trot, canter }: RampLoad, ways: Ways): number =>
  (walk + trot + canter) * (ways === "both" ? 2 : 1);

const EPSILON = 1e-9;

/** Why a ramp cannot be had, or null. @example rampProblem({ … }) // "The goal has no minutes." */
export function rampProblem({ start, goal, sessionsAWeek, ways, caps }: RampInput): string | null {
  for (const [name, load] of [
    ["The start", start],
    ["The goal", goal],
  ] as const) {
    if (![load.walk, load.trot, load.canter].every((minutes) => Number.isFinite(minutes) && minutes >= 0 && minutes <= 60))
      return `${name}: minutes from 0 to 60.`;
    const minutes = sessionMinutesOf(load, ways);
    if (minutes <= 0) return `${name} has no minutes.`;
    if (minutes > caps.sessionMinutes + EPSILON) return `${name} is ${minutes} min a session, over the cap of ${caps.sessionMinutes} min.`;
    if (caps.weekMinutes !== null && minutes * sessionsAWeek > caps.weekMinutes + EPSILON)
      return `${name} is ${minutes * sessionsAWeek} min a week, over the cap of ${caps.weekMinutes} min.`;
    if (load.canter > 0 && !caps.canter) return `${name} has canter; the circle is too small for it.`;
  }
  if (!(sessionsAWeek >= 1 && sessionsAWeek <= 7 && Number.isInteger(sessionsAWeek))) return "From 1 to 7 sessions a week.";
  if (caps.weekVisits !== null && sessionsAWeek > caps.weekVisits)
    return `${sessionsAWeek} sessions a week, over the cap of ${caps.weekVisits}.`;
  return null;
}

/**
 * The steps from a start to a goal, one change at a time, a minute at the most
 * each: minutes shifted from walk to trot, then the total, then obstacles, then
 * minutes of trot into canter (common practice, no source). No step has more
 * minutes than the greater of start and goal, so caps both keep are kept throughout.
 * @throws RangeError where rampProblem finds one.
 * @example rampSteps({ start: 8+2, goal: 7+3, … }) // start, one shift
 */
export function rampSteps(input: RampInput): RampStep[] {
  const problem = rampProblem(input);
  if (problem !== null) throw new RangeError(problem);
  const { start, goal } = input;
  const steps: RampStep[] = [{ ...start, change: "start" }];
  let now: RampLoad = start;
  const take = (change: RampChange, next: Partial<RampLoad>) => {
    now = { ...now, ...next };
    steps.push({ ...now, change });
  };
  const minute = (left: number) => Math.min(1, left);
  // A goal with less canter gives it back to trot first; one with more trots those minutes until the end.
  while (now.canter > goal.canter + EPSILON) {
    const by = minute(now.canter - goal.canter);
    take("canter", { canter: now.canter - by, trot: now.trot + by });
  }
  const trotFirst = goal.trot + goal.canter - now.canter;
  while (now.trot < trotFirst - EPSILON && now.walk > goal.walk + EPSILON) {
    const by = Math.min(minute(trotFirst - now.trot), now.walk - goal.walk);
    take("shift", { walk: now.walk - by, trot: now.trot + by });
  }
  // A goal with less trot gives it back to walk the same way.
  while (now.trot > trotFirst + EPSILON && now.walk < goal.walk - EPSILON) {
    const by = Math.min(minute(now.trot - trotFirst), goal.walk - now.walk);
    take("shift", { walk: now.walk + by, trot: now.trot - by });
  }
  // By now both are too long or both too short, so the total only falls or only grows.
  for (const [gait, target] of [
    ["walk", goal.walk],
    ["trot", trotFirst],
  ] as const)
    while (Math.abs(now[gait] - target) > EPSILON) {
      const by = minute(Math.abs(target - now[gait]));
      take("total", { [gait]: now[gait] + Math.sign(target - now[gait]) * by });
    }
  if (now.obstacles !== goal.obstacles) take("obstacles", { obstacles: goal.obstacles });
  while (now.canter < goal.canter - EPSILON) {
    const by = minute(goal.canter - now.canter);
    take("canter", { trot: now.trot - by, canter: now.canter + by });
  }
  return steps;
}

/** One session that was done, as the ramp sees it. */
export interface RampDone {
  readonly day: Day;
  /** Circling minutes. */
  readonly minutes: number;
  /** The way it went; "both" where both. */
  readonly side: "L" | "R" | "both";
  /** It ended before its time, showed danger or tension, or was said to be hard. */
  readonly poor: boolean;
  /** Whether the walk at the end was easy; null where nobody said, which is no yes. */
  readonly easy: boolean | null;
}

/** Where a ramp stands. */
export interface RampPlace {
  /** The step to be done next, from 0. */
  readonly step: number;
  /** The way of the next session; null where it has both. */
  readonly side: "L" | "R" | null;
  readonly reason: string;
}

/** Of a step's minutes, so much must have been done for it to count (common practice, no source). */
const DONE_SHARE = 0.8;
/** A break of so many days goes back a step, and each as long again another (common practice, no source). */
export const RAMP_BREAK_DAYS = 14;

/**
 * Where a ramp stands after what was done since it began: a step is done by a
 * session of its minutes that was not poor (one way a day in turn: one each
 * way), a poor one is repeated, a break goes back.
 * @param done oldest first, since the ramp was set.
 * @param first the way that goes first where they take turns.
 * @example rampPlace(steps, "both", [], "2026-03-02") // { step: 0, side: null, reason: "The first step." }
 */
export function rampPlace(
  steps: readonly RampStep[],
  ways: Ways,
  done: readonly RampDone[],
  today: Day,
  { first = "L", breakDays = RAMP_BREAK_DAYS }: { first?: "L" | "R"; breakDays?: number } = {},
): RampPlace {
  let at = 0;
  let reason = "The first step.";
  let waysDone = new Set<"L" | "R">();
  let last: RampDone | null = null;
  const back = (days: number) => {
    const by = Math.min(at, Math.floor(days / breakDays));
    if (days < breakDays) return;
    at -= by;
    waysDone = new Set();
    reason = by === 0 ? `${days} days without circling: the same step again.` : `${days} days without circling: ${by} back.`;
  };
  for (const session of done) {
    if (last !== null) back(daysBetween(last.day, session.day));
    last = session;
    const step = steps[at];
    if (step === undefined) break;
    if (session.poor) {
      reason = "The last one was poor: the same step again.";
      continue;
    }
    if (session.easy === null) {
      reason = "Nobody said whether the walk at the end was easy: the same step again.";
      continue;
    }
    if (session.minutes < sessionMinutesOf(step, ways) * DONE_SHARE - EPSILON) {
      reason = "The last one was shorter than its step: the same step again.";
      continue;
    }
    if (ways === "turn") {
      if (session.side !== "R") waysDone.add("L");
      if (session.side !== "L") waysDone.add("R");
      if (waysDone.size < 2) {
        reason = "The same step the other way.";
        continue;
      }
      waysDone = new Set();
    }
    if (at === steps.length - 1) {
      reason = "At the goal.";
      continue;
    }
    at++;
    reason = "The last one was good: one step on.";
  }
  if (last !== null) back(daysBetween(last.day, today));
  const side =
    ways === "both"
      ? null
      : waysDone.has("L")
        ? "R"
        : waysDone.has("R")
          ? "L"
          : last?.side === "L"
            ? "R"
            : last?.side === "R"
              ? "L"
              : first;
  return { step: at, side, reason };
}

/** A session of the calendar that is planned. */
export interface RampPlanned extends RampLoad {
  readonly day: Day;
  readonly step: number;
  readonly minutes: number;
  readonly side: "L" | "R" | "both";
}

/**
 * The sessions still to come, so many a week and evenly spread, each step once (in turn: once each way), until the goal was worked for a week.
 * @param from the first day that may be worked.
 * @example rampCalendar(steps, "turn", { step: 0, side: "L" }, "2026-03-02", 1) // 6 of them
 */
export function rampCalendar(
  steps: readonly RampStep[],
  ways: Ways,
  place: Pick<RampPlace, "step" | "side">,
  from: Day,
  sessionsAWeek: number,
): RampPlanned[] {
  const planned: RampPlanned[] = [];
  const each = ways === "turn" ? 2 : 1;
  let side: "L" | "R" | "both" = place.side ?? "both";
  const add = (step: RampStep, index: number) => {
    planned.push({
      ...step,
      step: index,
      day: addDays(from, Math.round((planned.length * 7) / sessionsAWeek)),
      minutes: sessionMinutesOf(step, ways),
      side,
    });
    if (side !== "both") side = side === "L" ? "R" : "L";
  };
  for (let index = place.step; index < steps.length; index++) {
    const step = steps[index];
    if (step === undefined) break;
    const times = index === steps.length - 1 ? Math.max(each, sessionsAWeek) : each;
    for (let i = 0; i < times; i++) add(step, index);
  }
  return planned;
}
