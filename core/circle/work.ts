import { planFromLog } from "../events/circle-log";
import type { CircleForm, CircleOverride, CirclePlan, KitStage } from "../events/circle-plan";
import { endOfWorkMs, type SessionRecord, secondsWithoutBreaks, until } from "../record";
import { breathingRate } from "../welfare/breathing";
import type { BreathingReading } from "../welfare/recovery";
import { FIT_CHECKS } from "./fit";
import { circleFigures, lapMetres, USUAL_SPEED_MPS } from "./mechanics";
import { type ScheduleMark, type Stretch, scheduleOf } from "./schedule";

export type Aid = "voice" | "whip" | "smaller" | "line";
export const AIDS: readonly Aid[] = ["voice", "whip", "smaller", "line"];

/** What goes wrong on a circle, one tap each; a plain count with its side. */
export const CIRCLE_FAULTS = [
  "wrong lead",
  "falls in",
  "falls out",
  "rushes",
  "bucks",
  "stops",
  "turns in",
  "quarters out",
  "stretches down",
] as const;
/** The same in a pen. */
export const PEN_FAULTS = ["stops", "turns out", "rushes", "bucks", "falls out", "stretches down"] as const;
/** Everything of the two that is counted by side. */
export const COUNTED_FAULTS: readonly string[] = [...new Set<string>([...CIRCLE_FAULTS, ...PEN_FAULTS])];
/** In a pen: what the horse shows, per direction. */
export const PEN_SIGNS = ["ear comes in", "turns in", "lowers head"] as const;

/** A stretch in one gait on one hand. Times in seconds of work since the plan began. */
export interface GaitStretch {
  readonly gait: string;
  readonly side: "L" | "R";
  readonly startSeconds: number;
  readonly endSeconds: number;
  /** Whether somebody tapped that the gait came; otherwise it is what the plan says. */
  readonly seen: boolean;
}

/** One change of gait that was asked for. Times in seconds of work since the plan began. */
export interface Transition {
  readonly from: string;
  readonly to: string;
  readonly side: "L" | "R";
  readonly askSeconds: number;
  readonly aids: readonly Aid[];
  /** Until the gait came; null where it never did. */
  readonly cameAfterSeconds: number | null;
  /** Until it was given up, where it never came. */
  readonly waitedSeconds: number;
  /** From the gait to the circle let out again, where that was tapped. */
  readonly outAfterSeconds: number | null;
}

/** What was shown on one hand in a pen. Seconds from the beginning of that direction, null where it was not. */
export interface Direction {
  readonly side: "L" | "R";
  readonly startSeconds: number;
  readonly seconds: number;
  readonly shown: Readonly<Record<(typeof PEN_SIGNS)[number], number | null>>;
}

/** The way down after work. */
export interface CoolDown {
  readonly startedMs: number;
  readonly handedTo: string | null;
  readonly readings: readonly BreathingReading[];
  /** How it ended; null while it goes on. */
  readonly ended: "cooled" | "left" | null;
  readonly reason: string | null;
}

/** Trot from so many minutes on is hard work, and any canter (common practice, no source). */
const HARD_TROT_SECONDS = 600;

/**
 * Whether the work was hard: the heart is then asked for too before breath is down.
 * @example workedHard({ gaits: [{ gait: "trot", side: "L", startSeconds: 0, endSeconds: 700 }] }) // true
 */
export const workedHard = ({ gaits }: Pick<CircleWork, "gaits">): boolean => {
  const seconds = (gait: string) =>
    gaits.filter((one) => one.gait === gait).reduce((sum, { startSeconds, endSeconds }) => sum + endSeconds - startSeconds, 0);
  return seconds("canter") > 0 || seconds("trot") >= HARD_TROT_SECONDS;
};

/** What a session on the circle came to. */
export interface CircleWork {
  readonly plan: CirclePlan;
  readonly form: CircleForm;
  readonly overrides: readonly CircleOverride[];
  readonly stretches: readonly Stretch[];
  /** Seconds of work since the plan began, and those of them within it. */
  readonly clockSeconds: number;
  readonly workedSeconds: number;
  readonly gaits: readonly GaitStretch[];
  readonly movingSeconds: number;
  /** Seconds by gait and side: "walk L". */
  readonly seconds: Readonly<Record<string, number>>;
  /** Laps counted by tap, by gait and side, and the speed they come to. */
  readonly laps: Readonly<Record<string, number>>;
  /** By gait, in m/s, only where laps were counted. */
  readonly speedMps: Readonly<Record<string, number>>;
  /** Sideways pull, lean and dose by gait; null without a radius. */
  readonly turning: {
    readonly doseGMinutes: number;
    readonly byGait: Readonly<Record<string, { readonly sidewaysMps2: number; readonly leanDegrees: number }>>;
  } | null;
  readonly distanceMetres: number;
  readonly transitions: readonly Transition[];
  /** Counts by sign and side: "falls in L". */
  readonly faults: Readonly<Record<string, number>>;
  readonly slack: { readonly times: number; readonly seconds: number };
  readonly directions: readonly Direction[];
  readonly steps: readonly {
    readonly what: string;
    readonly side: "L" | "R" | null;
    readonly metres: number | null;
    readonly note: string | null;
    readonly atSeconds: number;
  }[];
  readonly easy: boolean | null;
  /** Seconds of the plan that were not worked; 0 where it was run to its end. */
  readonly cutShortSeconds: number;
  /** What the plan still runs by its clock, where nobody has ended it: from when on the wall clock, and stretch by stretch. Null where nothing runs. */
  readonly running: {
    readonly sinceWallMs: number;
    readonly toCome: readonly { readonly gait: string; readonly side: "L" | "R"; readonly seconds: number }[];
  } | null;
  readonly danger: number;
  readonly cool: CoolDown | null;
  readonly kit: string | null;
  readonly kitStage: KitStage | null;
  /** What was not ticked of {@link FIT_CHECKS} before; null where nothing was looked at. */
  readonly fitOpen: readonly string[] | null;
}

const keyOf = (gait: string, side: "L" | "R") => `${gait} ${side}`;
const add = (counts: Record<string, number>, key: string, by: number) => {
  counts[key] = (counts[key] ?? 0) + by;
};

/** A gait counts as the one a segment asked for when it came up to so long before its change. */
const EARLY_SECONDS = 15;

/** Gaits by the taps that say they came, and by the plan where none does. */
function gaitsOf(
  plan: CirclePlan,
  stretches: readonly Stretch[],
  came: readonly { readonly atSeconds: number; readonly gait: string }[],
  workedSeconds: number,
): GaitStretch[] {
  const found: GaitStretch[] = [];
  let gait: string | null = null;
  const put = (next: GaitStretch) => {
    if (next.endSeconds <= next.startSeconds) return;
    const last = found.at(-1);
    if (
      last !== undefined &&
      last.gait === next.gait &&
      last.side === next.side &&
      last.seen === next.seen &&
      last.endSeconds === next.startSeconds
    )
      found[found.length - 1] = { ...last, endSeconds: next.endSeconds };
    else found.push(next);
  };
  for (const stretch of stretches) {
    const segment = plan.segments[stretch.segment];
    const endSeconds = Math.min(stretch.endSeconds, workedSeconds);
    if (segment === undefined || stretch.startSeconds >= endSeconds) continue;
    // Also the tap that is the last one so far.
    const within = came.filter(
      ({ atSeconds }) => atSeconds >= stretch.startSeconds && atSeconds < stretch.endSeconds && atSeconds <= workedSeconds,
    );
    const early = came.findLast(({ atSeconds }) => atSeconds < stretch.startSeconds && atSeconds >= stretch.startSeconds - EARLY_SECONDS);
    const tapped = within.some((one) => one.gait === segment.gait);
    // Where the gait of the segment was tapped in it, the one before went on until then; otherwise the plan is believed.
    let now: { gait: string; seen: boolean } =
      early?.gait === segment.gait
        ? { gait: segment.gait, seen: true }
        : tapped && gait !== null
          ? { gait, seen: true }
          : { gait: segment.gait, seen: false };
    let at = stretch.startSeconds;
    for (const one of within) {
      put({ ...now, side: segment.side, startSeconds: at, endSeconds: one.atSeconds });
      now = { gait: one.gait, seen: true };
      at = one.atSeconds;
    }
    put({ ...now, side: segment.side, startSeconds: at, endSeconds });
    gait = now.gait;
  }
  return found;
}

type Facts = SessionRecord["facts"];
type At = (ms: number) => number;

/** What of a session's log the clock of the circle goes by. */
interface CircleLog {
  readonly plan: CirclePlan;
  readonly overrides: readonly CircleOverride[];
  readonly startMs: number;
  /** Gaits, asks and presses that move the clock, since it began. */
  readonly facts: Facts;
}

const CLOCK_FACTS: ReadonlySet<string> = new Set(["circle.go", "circle.more", "gait", "aid", "circle.out"]);
const logs = new WeakMap<SessionRecord, CircleLog | null>();

/** Taken out of a record once, however often the clock is looked at. */
function logOf(record: SessionRecord): CircleLog | null {
  const known = logs.get(record);
  if (known !== undefined) return known;
  const begun = record.facts.find((fact) => fact.type === "circle.start");
  const log =
    begun?.type !== "circle.start"
      ? null
      : {
          plan: planFromLog(begun.payload.plan),
          overrides: begun.payload.overrides ?? [],
          startMs: begun.ms,
          facts: record.facts.filter(({ type, ms }) => ms >= begun.ms && CLOCK_FACTS.has(type)),
        };
  logs.set(record, log);
  return log;
}

const schedules = new WeakMap<CirclePlan["segments"], { readonly key: string; readonly stretches: readonly Stretch[] }>();

/**
 * The schedule of a plan: the same list as long as it says the same, since the sounds are made by it.
 * @example scheduleKept(segments, [{ atSeconds: 30, go: 1 }]) // 3 of them
 */
export function scheduleKept(segments: CirclePlan["segments"], marks: readonly ScheduleMark[]): readonly Stretch[] {
  const key = marks.map((mark) => ("go" in mark ? `${mark.atSeconds} go ${mark.go}` : `${mark.atSeconds} more ${mark.more}`)).join();
  const known = schedules.get(segments);
  if (known?.key === key) return known.stretches;
  const stretches = scheduleOf(segments, marks);
  schedules.set(segments, { key, stretches });
  return stretches;
}

/** Where the plan's clock stands. Seconds are those of work since the plan began, pauses taken out. */
export interface CircleClock {
  readonly plan: CirclePlan;
  readonly overrides: readonly CircleOverride[];
  readonly startMs: number;
  readonly endMs: number;
  readonly stretches: readonly Stretch[];
  readonly clockSeconds: number;
  /** Of those the ones within the plan. */
  readonly workedSeconds: number;
  readonly gaits: readonly GaitStretch[];
  readonly movingSeconds: number;
  readonly transitions: readonly Transition[];
  /** The one that still goes on: no gait was tapped since its last aid. */
  readonly asking: Transition | null;
  readonly at: At;
  readonly sideAt: (seconds: number) => "L" | "R";
}

/**
 * The clock of a session on the circle; null where it is none. Cost grows with
 * its gaits, asks and presses, not with its other facts.
 * @param nowMs the present of a session still running, in milliseconds from the start of work.
 * @example circleClock(record, 5000) // { startMs: 0, endMs: 5000, clockSeconds: 5, … }
 */
export function circleClock(record: SessionRecord, nowMs: number | null = null): CircleClock | null {
  const log = logOf(record);
  if (log === null) return null;
  const { plan, overrides, startMs } = log;
  const endMs = Math.max(startMs, endOfWorkMs(record, nowMs));
  const breaks = until(record.timeLine.breaks, endMs);
  const at = (ms: number) => secondsWithoutBreaks(startMs, Math.max(startMs, Math.min(ms, endMs)), breaks);
  const facts = log.facts.filter(({ ms }) => ms <= endMs);
  const marks = facts.flatMap((fact): ScheduleMark[] => {
    if (fact.type === "circle.go") return [{ atSeconds: at(fact.ms), go: fact.payload.segment }];
    return fact.type === "circle.more" ? [{ atSeconds: at(fact.ms), more: fact.payload.seconds }] : [];
  });
  const stretches = scheduleKept(plan.segments, marks);
  const planEnd = stretches.at(-1)?.endSeconds ?? 0;
  const clockSeconds = at(endMs);
  // Past its end the plan counts no more: what follows is standing, cooling and talk.
  const workedSeconds = Math.min(clockSeconds, planEnd);
  const sideAt = (seconds: number): "L" | "R" => {
    const stretch = stretches.findLast(({ startSeconds }) => startSeconds <= seconds) ?? stretches[0];
    return plan.segments[stretch?.segment ?? 0]?.side ?? "L";
  };
  const came = facts.flatMap((fact) => (fact.type === "gait" ? [{ atSeconds: at(fact.ms), gait: fact.payload.gait }] : []));
  const gaits = gaitsOf(plan, stretches, came, workedSeconds);
  return {
    ...{ plan, overrides, startMs, endMs, stretches, clockSeconds, workedSeconds, gaits, at, sideAt },
    movingSeconds: gaits.reduce((sum, { gait, startSeconds, endSeconds }) => sum + (gait === "stand" ? 0 : endSeconds - startSeconds), 0),
    ...transitionsOf(facts, at, (s, to) => gaitBefore(gaits, s, to), sideAt, clockSeconds),
  };
}

/**
 * Everything a session on the circle came to, from its facts; null where it is none.
 * Seconds are those of work, pauses taken out. Cost grows with the facts times the segments.
 * @param nowMs the present of a session still running, in milliseconds from the start of work.
 * @example circleWorkOf(record) // { form: "circle", clockSeconds: 0, workedSeconds: 0, … }
 */
export function circleWorkOf(record: SessionRecord, nowMs: number | null = null): CircleWork | null {
  const clock = circleClock(record, nowMs);
  if (clock === null) return null;
  const { plan, overrides, startMs, endMs, stretches, clockSeconds: whole, workedSeconds, gaits, movingSeconds, at, sideAt } = clock;
  const planEnd = stretches.at(-1)?.endSeconds ?? 0;
  const inWork = record.facts.filter(({ ms }) => ms >= startMs && ms <= endMs);

  const seconds: Record<string, number> = {};
  for (const { gait, side, startSeconds, endSeconds } of gaits) add(seconds, keyOf(gait, side), endSeconds - startSeconds);

  const { laps, speedMps } = lapsOf(
    plan,
    inWork.flatMap((fact) => (fact.type === "lap" ? [at(fact.ms)] : [])),
    gaits,
  );
  const byGait: Record<string, { sidewaysMps2: number; leanDegrees: number }> = {};
  let dose = 0;
  let distanceMetres = 0;
  for (const { gait, startSeconds, endSeconds } of gaits) {
    const speed = speedMps[gait] ?? USUAL_SPEED_MPS[gait] ?? 0;
    distanceMetres += speed * (endSeconds - startSeconds);
    if (plan.radiusMetres === null || speed === 0) continue;
    const { sidewaysMps2, leanDegrees, turningDoseGMinutes } = circleFigures({
      radiusMetres: plan.radiusMetres,
      speedMps: speed,
      minutes: (endSeconds - startSeconds) / 60,
    });
    byGait[gait] = { sidewaysMps2, leanDegrees };
    dose += turningDoseGMinutes;
  }

  const faults: Record<string, number> = {};
  let danger = 0;
  for (const fact of inWork) {
    if (fact.type !== "signal") continue;
    if (fact.payload.class === "danger") danger++;
    if (COUNTED_FAULTS.includes(fact.payload.name)) add(faults, keyOf(fact.payload.name, fact.payload.side ?? sideAt(at(fact.ms))), 1);
  }
  const rated = record.facts.findLast((fact) => fact.type === "circle.rated");
  return {
    plan,
    form: plan.form,
    overrides,
    stretches,
    clockSeconds: whole,
    workedSeconds,
    gaits,
    movingSeconds,
    seconds,
    laps,
    speedMps,
    turning: plan.radiusMetres === null ? null : { doseGMinutes: dose, byGait },
    distanceMetres,
    transitions: clock.transitions,
    faults,
    slack: slackOf(inWork, at, whole),
    directions: directionsOf(plan, stretches, inWork, at, workedSeconds),
    steps: inWork.flatMap((fact) => {
      if (fact.type !== "lines.step") return [];
      const { what, side = null, metres = null, note = null } = fact.payload;
      return [{ what, side, metres, note, atSeconds: at(fact.ms) }];
    }),
    easy: rated?.type === "circle.rated" ? rated.payload.easy : null,
    cutShortSeconds: Math.max(0, planEnd - whole),
    running:
      record.finishMs !== null || record.planRunsUntilMs === null || workedSeconds >= planEnd
        ? null
        : {
            sinceWallMs: (record.startWallMs ?? 0) + endMs,
            toCome: stretches.flatMap(({ segment, startSeconds, endSeconds }) => {
              const { gait, side } = plan.segments[segment] ?? { gait: "stand", side: "L" as const };
              const from = Math.max(startSeconds, workedSeconds);
              return endSeconds > from ? [{ gait, side, seconds: endSeconds - from }] : [];
            }),
          },
    danger,
    cool: coolOf(record),
    kit: plan.kit,
    kitStage: plan.kitStage,
    fitOpen: fitOpenOf(record),
  };
}

function fitOpenOf({ facts }: SessionRecord): string[] | null {
  const looked = facts.findLast((fact) => fact.type === "preflight");
  if (looked?.type !== "preflight" || looked.payload.skipped === true) return null;
  const ticked = new Set(looked.payload.checks ?? []);
  return FIT_CHECKS.filter((check) => !ticked.has(check));
}

/**
 * Laps by tap: each tap ends a lap that began at the tap before, in one gait on
 * one hand; the first only begins one. The speed is that of the laps that lie whole in their gait.
 */
function lapsOf(plan: CirclePlan, taps: readonly number[], gaits: readonly GaitStretch[]) {
  const laps: Record<string, number> = {};
  const timed: Record<string, { laps: number; seconds: number }> = {};
  for (const [i, tap] of taps.entries()) {
    const before = taps[i - 1];
    const stretch = gaits.findLast(({ startSeconds }) => startSeconds <= tap);
    if (before === undefined || stretch === undefined || before < stretch.startSeconds || tap > stretch.endSeconds) continue;
    add(laps, keyOf(stretch.gait, stretch.side), 1);
    const sum = timed[stretch.gait] ?? { laps: 0, seconds: 0 };
    timed[stretch.gait] = { laps: sum.laps + 1, seconds: sum.seconds + tap - before };
  }
  const speedMps: Record<string, number> = {};
  if (plan.radiusMetres !== null)
    for (const [gait, sum] of Object.entries(timed))
      if (sum.seconds > 0) speedMps[gait] = (lapMetres(plan.radiusMetres) * sum.laps) / sum.seconds;
  return { laps, speedMps };
}

/** The gait a horse goes in when it is asked for another. Where only the plan says that it goes in the one asked for, nobody saw it: it goes as before. */
function gaitBefore(gaits: readonly GaitStretch[], seconds: number, to: string): string {
  const at = gaits.findLastIndex(({ startSeconds }) => startSeconds <= seconds);
  const stretch = gaits[at];
  return (stretch !== undefined && !stretch.seen && stretch.gait === to ? gaits[at - 1] : stretch)?.gait ?? "stand";
}

function transitionsOf(
  facts: Facts,
  at: At,
  before: (seconds: number, to: string) => string,
  sideAt: (seconds: number) => "L" | "R",
  endSeconds: number,
): { readonly transitions: readonly Transition[]; readonly asking: Transition | null } {
  type TransitionDraft = { -readonly [Key in keyof Transition]: Transition[Key] } & { aids: Aid[] };
  const found: TransitionDraft[] = [];
  let open: TransitionDraft | null = null;
  const giveUp = (seconds: number) => {
    if (open !== null) open.waitedSeconds = seconds - open.askSeconds;
    open = null;
  };
  for (const fact of facts) {
    const seconds = at(fact.ms);
    if (fact.type === "aid") {
      const { aid, to } = fact.payload;
      if (open !== null && open.to !== to) giveUp(seconds);
      if (open === null) {
        // A moment before the press, so that a gait tapped with it is not taken for the one it came from.
        open = {
          from: before(Math.max(0, seconds - 0.001), to),
          to,
          side: sideAt(seconds),
          askSeconds: seconds,
          aids: [],
          cameAfterSeconds: null,
          waitedSeconds: 0,
          outAfterSeconds: null,
        };
        found.push(open);
      }
      open.aids.push(aid);
    } else if (fact.type === "gait" && open !== null) {
      // Another gait that is tapped says that it was given up.
      if (fact.payload.gait !== open.to) giveUp(seconds);
      else {
        open.cameAfterSeconds = seconds - open.askSeconds;
        open.waitedSeconds = open.cameAfterSeconds;
        open = null;
      }
    } else if (fact.type === "circle.out") {
      const last = found.at(-1);
      if (last !== undefined && last.cameAfterSeconds !== null && last.outAfterSeconds === null)
        last.outAfterSeconds = seconds - last.askSeconds - last.cameAfterSeconds;
    }
  }
  const running: Transition | null = open;
  giveUp(endSeconds);
  return { transitions: found, asking: running };
}

function slackOf(facts: Facts, at: At, endSeconds: number) {
  let times = 0;
  let seconds = 0;
  let open: number | null = null;
  for (const fact of facts) {
    if (fact.type === "slack.start" && open === null) {
      times++;
      open = at(fact.ms);
    } else if (fact.type === "slack.end" && open !== null) {
      seconds += at(fact.ms) - open;
      open = null;
    }
  }
  return { times, seconds: seconds + (open === null ? 0 : endSeconds - open) };
}

/** Directions of a pen, one after the other, and when each sign was first shown in each. */
function directionsOf(plan: CirclePlan, stretches: readonly Stretch[], facts: Facts, at: At, workedSeconds: number): Direction[] {
  if (plan.form !== "pen") return [];
  const turns: { side: "L" | "R"; startSeconds: number; endSeconds: number }[] = [];
  for (const { segment, startSeconds, endSeconds } of stretches) {
    const side = plan.segments[segment]?.side;
    const end = Math.min(endSeconds, workedSeconds);
    if (side === undefined || startSeconds >= end) continue;
    const last = turns.at(-1);
    if (last?.side === side) last.endSeconds = end;
    else turns.push({ side, startSeconds, endSeconds: end });
  }
  const shown = facts.flatMap((fact) => (fact.type === "signal" ? [{ name: fact.payload.name, seconds: at(fact.ms) }] : []));
  return turns.map(({ side, startSeconds, endSeconds }) => {
    const first = (sign: string) => {
      const found = shown.find(({ name, seconds }) => name === sign && seconds >= startSeconds && seconds < endSeconds);
      return found === undefined ? null : found.seconds - startSeconds;
    };
    return {
      side,
      startSeconds,
      seconds: endSeconds - startSeconds,
      shown: { "ear comes in": first("ear comes in"), "turns in": first("turns in"), "lowers head": first("lowers head") },
    };
  });
}

function coolOf({ facts, startWallMs }: SessionRecord): CoolDown | null {
  const cools = facts.flatMap((fact) => (fact.type === "cool" ? [fact] : []));
  const begun = cools.find(({ payload }) => payload.did === "starts");
  if (begun === undefined) return null;
  const wall = (ms: number) => (startWallMs ?? 0) + ms;
  const readings = facts.flatMap((fact) => {
    const rate = fact.type === "breath" && fact.ms >= begun.ms ? breathingRate(fact.payload.taps_ms) : null;
    return rate === null ? [] : [{ wallMs: wall(fact.ms), perMinute: rate.perMinute }];
  });
  const end = cools.findLast(({ payload }) => payload.did === "cooled" || payload.did === "left");
  return {
    startedMs: wall(begun.ms),
    handedTo: cools.findLast(({ payload }) => payload.did === "handed")?.payload.who ?? null,
    readings,
    ended: end === undefined ? null : end.payload.did === "cooled" ? "cooled" : "left",
    reason: end?.payload.reason ?? null,
  };
}

/**
 * Whether a session speaks against the next step: it ended early, showed danger, or the walk at the end was not easy.
 * @example wasPoor({ … }) // true
 */
export const wasPoor = ({
  easy,
  danger,
  cutShortSeconds,
  workedSeconds,
}: Pick<CircleWork, "easy" | "danger" | "cutShortSeconds" | "workedSeconds">): boolean =>
  easy === false || danger > 0 || cutShortSeconds > 0.2 * (cutShortSeconds + workedSeconds);
