import { type ToldShare, toldShare } from "../compare";
import {
  type DatedRate,
  type GroupMeasures,
  measureGroup,
  type SurvivalCurve,
  shareOfTrials,
  sumsOfSessions,
  survival,
  type WeeklyTrend,
  weeklyTrend,
} from "../evidence";
import { MILLISECONDS_PER_DAY } from "../units";
import { conditionWords } from "./conditions";
import type { PastFilter } from "./filter";
import { type HalfTime, halfTime } from "./half-time";
import { bySession, type Past, type PastSession, type PastTrial } from "./past";
import { type WeeklyChange, weeklyChange } from "./slope";

/** A sign by its name, seen so often in ten minutes of work. */
export interface SignRate {
  readonly kind: "ease" | "tension" | "danger" | "pain" | "count";
  readonly name: string;
  readonly count: number;
  readonly perTenMinutes: number | null;
}

/** What one session showed of a behaviour. */
export interface SessionPoint {
  readonly session: PastSession;
  readonly days: number;
  readonly trials: readonly PastTrial[];
  /** Rungs worked, in rising order, warm-up and easy ones at the end aside where there is anything else. */
  readonly rungs: readonly number[];
  readonly versions: readonly number[];
  readonly handlers: readonly string[];
  readonly n: number;
  readonly met: number;
  readonly share: ToldShare;
  readonly lightness: ToldShare;
  readonly half: HalfTime | null;
  /** Minutes of the blocks that were worked on it; null where it was written from memory. */
  readonly minutes: number | null;
  readonly responsesPerMinute: number | null;
  readonly reinforcedPerMinute: number | null;
  readonly meanEase: number | null;
  readonly eased: number;
  readonly medianReleaseLag: number | null;
  /** The first five today against the last five of the session before on the same rung. */
  readonly warmUp: WarmUp | null;
  readonly connectedShare: number | null;
  readonly departures: number;
  readonly departuresPerTenMinutes: number | null;
  readonly signs: readonly SignRate[];
  /** What was special about it, in words. */
  readonly conditions: readonly string[];
}

export interface WarmUp {
  readonly rung: number;
  readonly before: number;
  readonly today: number;
  /** How many on either hand: five, or fewer where there were fewer. */
  readonly ofBefore: number;
  readonly ofToday: number;
}

/** A step of the cumulative record: working minutes since its start, right answers so far, and whether this one was reinforced. */
export type CumulativeStep = readonly [minutes: number, met: number, reinforced: boolean];

/** A behaviour over time. */
export interface OverWeeks {
  readonly points: readonly SessionPoint[];
  readonly all: GroupMeasures;
  readonly share: ToldShare;
  readonly lightness: ToldShare;
  readonly half: HalfTime | null;
  readonly responseTrend: WeeklyTrend | null;
  readonly reinforcedTrend: WeeklyTrend | null;
  readonly lightnessChange: WeeklyChange | null;
  readonly halfChange: WeeklyChange | null;
  readonly easeChange: WeeklyChange | null;
  readonly warmUps: readonly WarmUp[];
  readonly cumulative: readonly CumulativeStep[];
  /** Where each session but the first begins on that record, in working minutes. */
  readonly seams: readonly number[];
  /** Seconds stayed until it left; null where nothing was stayed for. */
  readonly stays: SurvivalCurve | null;
  /** What the figures rest on. */
  readonly filter: PastFilter;
}

const FIRST_AND_LAST = 5;

/** A session's trials on the rungs that were taught in it: warm-up and the easy one at the end aside, unless there is nothing else. */
const taught = (trials: readonly PastTrial[]): readonly PastTrial[] => {
  const work = trials.filter(({ kind }) => kind === "work");
  return work.length === 0 ? trials : work;
};

const numbersOf = (list: readonly (number | null)[]) => [...new Set(list.filter((one) => one !== null))].sort((a, b) => a - b);

/** Seconds of a moment of work, breaks taken out. @example workedMs({ … }, 0) // 0 */
export function workedMs({ facts }: PastSession, ms: number): number {
  let away = 0;
  for (const [from, to] of facts.breaks) away += Math.max(0, Math.min(ms, to) - Math.max(0, from));
  return Math.max(0, ms - away);
}

function warmUpOf(today: readonly PastTrial[], before: readonly PastTrial[] | undefined): WarmUp | null {
  const first = taught(today)[0];
  if (first === undefined || before === undefined || first.rung === null) return null;
  const same = ({ rung, version, kind }: PastTrial) => kind === "work" && rung === first.rung && version === first.version;
  const now = today.filter(same).slice(0, FIRST_AND_LAST);
  const then = before.filter(same).slice(-FIRST_AND_LAST);
  if (now.length < FIRST_AND_LAST || then.length < FIRST_AND_LAST) return null;
  const met = (list: readonly PastTrial[]) => list.filter(({ outcome }) => outcome === "met").length;
  return { rung: first.rung, before: met(then), today: met(now), ofBefore: then.length, ofToday: now.length };
}

/** Named signs of a session, by how often. @example signRates(session) // 2 of them */
export function signRates(session: PastSession): SignRate[] {
  const counts = new Map<string, { kind: SignRate["kind"]; name: string; count: number }>();
  for (const [, kind, name] of session.facts.moments) {
    if (kind !== "ease" && kind !== "tension" && kind !== "danger" && kind !== "pain" && kind !== "count") continue;
    const key = `${kind} ${name}`;
    const sign = counts.get(key) ?? { kind, name, count: 0 };
    sign.count++;
    counts.set(key, sign);
  }
  const minutes = session.workSeconds / 60;
  return [...counts.values()]
    .map((sign) => ({ ...sign, perTenMinutes: minutes > 0 ? (sign.count * 10) / minutes : null }))
    .sort((a, b) => b.count - a.count || (a.name < b.name ? -1 : 1));
}

function pointOf(
  session: PastSession,
  trials: readonly PastTrial[],
  before: { readonly session: PastSession; readonly trials: readonly PastTrial[] } | null,
  firstMs: number,
  names: ReadonlyMap<string, string>,
): SessionPoint {
  const late = trials.some(({ logged }) => logged === "late");
  const blocks = new Set(trials.flatMap(({ block }) => (block === null ? [] : [block])));
  const seconds = [...blocks].reduce((sum, block) => sum + (session.facts.blocks[block]?.seconds ?? 0), 0);
  const minutes = late || seconds <= 0 ? null : seconds / 60;
  const measures = measureGroup(trials, minutes ?? 0);
  const graded = trials.flatMap(({ ease }) => (ease === null ? [] : [ease]));
  const away = session.facts.away.reduce((sum, [from, to]) => sum + workedMs(session, to) - workedMs(session, from), 0) / 1000;
  const free = session.workSeconds > 0;
  return {
    session,
    days: (session.startedMs - firstMs) / MILLISECONDS_PER_DAY,
    trials,
    rungs: numbersOf(taught(trials).map(({ rung }) => rung)),
    versions: numbersOf(trials.map(({ version }) => version)),
    handlers: [...new Set(trials.flatMap(({ handler }) => handler ?? []))],
    n: measures.n,
    met: measures.met,
    share: toldShare(sumsOfSessions([{ met: measures.met, of: measures.n }])),
    lightness: toldShare(sumsOfSessions([{ met: measures.metAtLightest, of: measures.metWithPhase }])),
    half: halfTime(trials),
    minutes,
    responsesPerMinute: measures.responsesPerMinute,
    reinforcedPerMinute: measures.reinforcedPerMinute,
    meanEase: graded.length === 0 ? null : graded.reduce((sum, ease) => sum + ease, 0) / graded.length,
    eased: graded.length,
    medianReleaseLag: measures.releaseLag.median,
    warmUp: warmUpOf(trials, before?.trials),
    connectedShare: free ? Math.max(0, 1 - away / session.workSeconds) : null,
    departures: session.facts.away.length,
    departuresPerTenMinutes: free ? (session.facts.away.length * 600) / session.workSeconds : null,
    signs: signRates(session),
    conditions: conditionWords(session, trials, before, names),
  };
}

/** Rates of sessions for a trend: a session without one counts as one in its time. */
function datedRates(points: readonly SessionPoint[], of: (point: SessionPoint) => number | null): DatedRate[] {
  return points.flatMap((point) => {
    const rate = of(point);
    if (point.minutes === null || rate === null) return [];
    return [{ days: point.days, rate: rate > 0 ? rate : 1 / point.minutes, counted: { met: rate * point.minutes, of: point.n } }];
  });
}

/** @param drawn variance that chance within a session gives its value. */
const changeOf = (
  points: readonly SessionPoint[],
  of: (point: SessionPoint) => number | null,
  drawn: (point: SessionPoint) => number = () => 0,
) =>
  weeklyChange(
    points.flatMap((point) => {
      const value = of(point);
      return value === null ? [] : [{ days: point.days, value, drawnVariance: drawn(point) }];
    }),
  );

const isBright = ({ outcome, phase }: PastTrial) => outcome === "met" && phase !== null;

/** Of a share at the lightest cue: p̃q̃/n, p̃ that of all sessions. */
function drawnLightness(bright: readonly PastTrial[]): (point: SessionPoint) => number {
  const share = (bright.filter(({ phase }) => phase === 1).length + 1) / (bright.length + 2);
  return ({ trials }) => (share * (1 - share)) / Math.max(1, trials.filter(isBright).length);
}

/** Of a mean of grades: what grades differ by within sessions, over how many were given. */
function drawnEase(points: readonly SessionPoint[]): (point: SessionPoint) => number {
  let squares = 0;
  let degrees = 0;
  for (const { trials, meanEase, eased } of points) {
    if (meanEase === null) continue;
    for (const { ease } of trials) if (ease !== null) squares += (ease - meanEase) ** 2;
    degrees += eased - 1;
  }
  return ({ eased }) => (degrees <= 0 ? 0 : squares / degrees / Math.max(1, eased));
}

/** Right answers against working time, over all sessions. Times written from memory draw nothing. */
function cumulativeOf(points: readonly SessionPoint[]): Pick<OverWeeks, "cumulative" | "seams"> {
  const cumulative: CumulativeStep[] = [];
  const seams: number[] = [];
  let before = 0;
  let met = 0;
  for (const { session, trials } of points) {
    if (trials.some(({ logged }) => logged === "late")) continue;
    if (before > 0) seams.push(before);
    for (const trial of trials) {
      if (trial.outcome !== "met") continue;
      met++;
      cumulative.push([before + workedMs(session, trial.answerMs ?? trial.askMs) / 60_000, met, trial.reinforced === true]);
    }
    before += session.workSeconds / 60;
  }
  return { cumulative, seams };
}

/**
 * Time stayed until it left; a stay that reached its seconds or that the handler ended is cut off there.
 * @example staysOf(trials) // { answered: 9, censored: 12, medianSeconds: 23, … }
 */
export function staysOf(trials: readonly PastTrial[]): SurvivalCurve | null {
  const waitings = trials.flatMap(({ endedBy, value, unit }) =>
    endedBy === null || value === null || value < 0 || unit !== "s" ? [] : [{ seconds: value, answered: endedBy === "left" }],
  );
  return waitings.length === 0 ? null : survival(waitings);
}

/**
 * One behaviour over a span of sessions: a point a session and what they come
 * to together. Rates are per minute of the blocks that were worked on it.
 * Cost grows as n·log n with the trials.
 * @param names of handlers, places and kit by id.
 * @example overWeeks(past, { ladder }, names).share.sentence
 */
export function overWeeks(past: Past, filter: PastFilter, names: ReadonlyMap<string, string>): OverWeeks {
  const lists = bySession(past);
  const firstMs = past.sessions[0]?.startedMs ?? 0;
  const points: SessionPoint[] = [];
  let before: { session: PastSession; trials: readonly PastTrial[] } | null = null;
  for (const [i, session] of past.sessions.entries()) {
    const trials = lists[i] ?? [];
    if (trials.length === 0) continue;
    points.push(pointOf(session, trials, before, firstMs, names));
    before = { session, trials };
  }
  const minutes = points.reduce((sum, point) => sum + (point.minutes ?? 0), 0);
  const bright = past.trials.filter(isBright);
  const idOf = ({ session }: PastTrial) => String(session);
  return {
    points,
    all: measureGroup(past.trials, minutes),
    share: toldShare(shareOfTrials(past.trials.map((trial) => ({ session: idOf(trial), outcome: trial.outcome })))),
    lightness: toldShare(shareOfTrials(bright.map((trial) => ({ session: idOf(trial), outcome: trial.phase === 1 ? "met" : "try" })))),
    half: halfTime(past.trials),
    responseTrend: weeklyTrend(datedRates(points, ({ responsesPerMinute }) => responsesPerMinute)),
    reinforcedTrend: weeklyTrend(datedRates(points, ({ reinforcedPerMinute }) => reinforcedPerMinute)),
    lightnessChange: changeOf(points, ({ lightness }) => lightness.share, drawnLightness(bright)),
    halfChange: changeOf(points, ({ half }) => half?.seconds ?? null),
    easeChange: changeOf(points, ({ meanEase }) => meanEase, drawnEase(points)),
    warmUps: points.flatMap(({ warmUp }) => warmUp ?? []),
    ...cumulativeOf(points),
    stays: staysOf(past.trials),
    filter,
  };
}

/** Median of a list, or null where it is empty. */
