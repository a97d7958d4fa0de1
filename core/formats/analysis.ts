import {
  compareSides,
  type DatedRate,
  type GroupMeasures,
  GroupTally,
  type GroupTallyState,
  type Interval,
  type LagMeasures,
  type MeasuredTrial,
  sessionShare,
  sumsOfSessions,
  weeklyFactor,
} from "../evidence";
import { MILLISECONDS_PER_DAY } from "../units";
import type { RefusedRow } from "./column";

interface SessionSoFar {
  readonly startedMs: number;
  /** Working time as far as the trials alone show it, in seconds. */
  estimatedSeconds: number;
  met: number;
}

interface GroupSoFar {
  readonly tally: GroupTally;
  /** Met and trials of each session, by its number. */
  readonly sessions: Map<number, { met: number; of: number }>;
  lastSession: number;
  lastCounts: { met: number; of: number };
}

/** A trial with what the grouping needs. */
export interface GroupedTrial extends MeasuredTrial {
  readonly session: string;
  readonly startedMs: number;
  readonly behaviour: string;
  readonly rung: string;
  readonly side: "L" | "R" | null;
  readonly askSeconds: number;
}

interface GroupState {
  readonly tally: GroupTallyState;
  readonly sessions: readonly (readonly [index: number, met: number, of: number])[];
}

/** Everything an analysis holds, as plain data that can go to another thread. */
export interface AnalysisState {
  readonly sessions: readonly (SessionSoFar & { readonly id: string })[];
  readonly overall: GroupState;
  readonly left: GroupState;
  readonly right: GroupState;
  readonly byRung: readonly { readonly behaviour: string; readonly rung: string; readonly group: GroupState }[];
  readonly refused: readonly RefusedRow[];
}

const stateOf = (group: GroupSoFar): GroupState => ({
  tally: group.tally.state(),
  sessions: [...group.sessions].map(([index, { met, of }]) => [index, met, of]),
});

const newGroup = (): GroupSoFar => ({ tally: new GroupTally(), sessions: new Map(), lastSession: -1, lastCounts: { met: 0, of: 0 } });

/** The counts of a session within a group, made where there are none yet. */
function countsOf(group: GroupSoFar, session: number): { met: number; of: number } {
  const known = group.sessions.get(session);
  if (known !== undefined) return known;
  const made = { met: 0, of: 0 };
  group.sessions.set(session, made);
  return made;
}

/** A part of a key whose parts are set apart by |, so that a|b and c is never a and b|c. */
const keyPart = (text: string) => text.replace(/[\\|]/g, "\\$&");

/** Order by code point, as other languages sort; JavaScript's own order is by UTF-16 unit. */
function compareCodePoints(a: string, b: string): number {
  const left = Array.from(a, (c) => c.codePointAt(0) as number);
  const right = Array.from(b, (c) => c.codePointAt(0) as number);
  const shared = Math.min(left.length, right.length);
  for (let i = 0; i < shared; i++) {
    const difference = (left[i] as number) - (right[i] as number);
    if (difference !== 0) return difference;
  }
  return left.length - right.length;
}

const lagOutput = (lag: LagMeasures) => ({ median: lag.median, p90: lag.p90, late_share: lag.lateShare });

/**
 * A group's measures in the words of the formats document.
 * @param sessions95 the interval of the share over sessions; null under two.
 * @example groupOutput(m) // { n: 48, met: 15, try: 13, … }
 */
export function groupOutput(m: GroupMeasures, sessions95: Interval | null = null) {
  return {
    n: m.n,
    met: m.met,
    try: m.try,
    miss: m.miss,
    refused: m.refused,
    success: m.success,
    wilson95: m.wilson95,
    sessions95,
    p_at_least_080: m.chanceAtLeast80,
    asks_per_min: m.asksPerMinute,
    responses_per_min: m.responsesPerMinute,
    tries_per_min: m.triesPerMinute,
    reinforced_per_min: m.reinforcedPerMinute,
    releases_per_min: m.releasesPerMinute,
    marks_per_min: m.marksPerMinute,
    food_per_min: m.foodPerMinute,
    lightness: m.lightness,
    mean_phase_met: m.meanPhaseMet,
    latency: {
      n: m.latency.answered + m.latency.censored,
      censored: m.latency.censored,
      km_median_s: m.latency.medianSeconds,
      km: m.latency.steps,
      wrong: m.latency.wrong,
      half_answered_s: m.latency.halfAnsweredSeconds,
    },
    release_lag_s: lagOutput(m.releaseLag),
    mark_lag_s: lagOutput(m.markLag),
    feed_delay_s: lagOutput(m.feedDelay),
  };
}

/**
 * Gathers trials one by one and gives the measures of the formats document.
 * Memory grows by the times kept (a few dozen bytes a trial) and by sessions;
 * time is linear but for sorting the times at the end.
 */
export class TrialsAnalysis {
  private readonly sessions: SessionSoFar[] = [];
  private readonly sessionIndex = new Map<string, number>();
  private readonly overall = newGroup();
  private readonly byRung = new Map<string, Map<string, GroupSoFar>>();
  private readonly left = newGroup();
  private readonly right = newGroup();
  readonly refused: RefusedRow[] = [];
  readonly unknownColumns: string[] = [];
  private lastSession = "";
  private lastIndex = -1;
  private lastRung: { behaviour: string; rung: string; group: GroupSoFar } | null = null;

  private indexOf(trial: GroupedTrial): number {
    if (this.lastIndex >= 0 && trial.session === this.lastSession) return this.lastIndex;
    let index = this.sessionIndex.get(trial.session);
    if (index === undefined) {
      index = this.sessions.length;
      this.sessions.push({ startedMs: trial.startedMs, estimatedSeconds: 0, met: 0 });
      this.sessionIndex.set(trial.session, index);
    }
    this.lastSession = trial.session;
    this.lastIndex = index;
    return index;
  }

  private rungGroup(behaviour: string, rung: string): GroupSoFar {
    // Rows of one rung mostly follow one another; comparing is cheaper than looking up.
    const last = this.lastRung;
    if (last !== null && last.rung === rung && last.behaviour === behaviour) return last.group;
    let rungs = this.byRung.get(behaviour);
    if (rungs === undefined) {
      rungs = new Map();
      this.byRung.set(behaviour, rungs);
    }
    let group = rungs.get(rung);
    if (group === undefined) {
      group = newGroup();
      rungs.set(rung, group);
    }
    this.lastRung = { behaviour, rung, group };
    return group;
  }

  add(trial: GroupedTrial): void {
    const index = this.indexOf(trial);
    const session = this.sessions[index] as SessionSoFar;
    const end = trial.askSeconds + (trial.waitedSeconds ?? trial.latencySeconds ?? 0);
    if (end > session.estimatedSeconds) session.estimatedSeconds = end;
    if (trial.outcome === "met") session.met++;
    this.addTo(this.overall, trial, index);
    this.addTo(this.rungGroup(trial.behaviour, trial.rung), trial, index);
    if (trial.side !== null) this.addTo(trial.side === "L" ? this.left : this.right, trial, index);
  }

  private addTo(group: GroupSoFar, trial: GroupedTrial, session: number): void {
    group.tally.add(trial);
    if (group.lastSession !== session) {
      group.lastSession = session;
      group.lastCounts = countsOf(group, session);
    }
    group.lastCounts.of++;
    if (trial.outcome === "met") group.lastCounts.met++;
  }

  /** What the analysis holds, for {@link absorb} elsewhere. */
  state(): AnalysisState {
    return {
      sessions: [...this.sessionIndex].map(([id, index]) => ({ id, ...(this.sessions[index] as SessionSoFar) })),
      overall: stateOf(this.overall),
      left: stateOf(this.left),
      right: stateOf(this.right),
      byRung: [...this.byRung].flatMap(([behaviour, groups]) =>
        [...groups].map(([rung, group]) => ({ behaviour, rung, group: stateOf(group) })),
      ),
      refused: this.refused,
    };
  }

  /**
   * Adds a later part of the same file, analysed on its own.
   * @param linesBefore physical lines of the file before that part.
   */
  absorb(part: AnalysisState, linesBefore: number): void {
    const index = part.sessions.map(({ id, startedMs, estimatedSeconds, met }) => {
      let known = this.sessionIndex.get(id);
      if (known === undefined) {
        known = this.sessions.length;
        this.sessions.push({ startedMs, estimatedSeconds: 0, met: 0 });
        this.sessionIndex.set(id, known);
      }
      const session = this.sessions[known] as SessionSoFar;
      session.estimatedSeconds = Math.max(session.estimatedSeconds, estimatedSeconds);
      session.met += met;
      return known;
    });
    const join = (group: GroupSoFar, { tally, sessions }: GroupState) => {
      group.tally.absorb(tally);
      for (const [session, met, of] of sessions) {
        const counts = countsOf(group, index[session] as number);
        counts.met += met;
        counts.of += of;
      }
    };
    join(this.overall, part.overall);
    join(this.left, part.left);
    join(this.right, part.right);
    for (const { behaviour, rung, group } of part.byRung) join(this.rungGroup(behaviour, rung), group);
    for (const row of part.refused) this.refused.push({ ...row, line: row.line + linesBefore });
  }

  /**
   * The output of `analyse`.
   * @param givenSeconds working time by session id, where a sessions file (or the events) gives it.
   */
  finish(givenSeconds: ReadonlyMap<string, number>) {
    const seconds = this.sessions.map((session) => session.estimatedSeconds);
    let given = 0;
    for (const [id, index] of this.sessionIndex) {
      const known = givenSeconds.get(id);
      if (known === undefined) continue;
      seconds[index] = known;
      given++;
    }
    const minutesOf = (group: GroupSoFar) => {
      let sum = 0;
      for (const index of group.sessions.keys()) sum += seconds[index] as number;
      return sum / 60;
    };
    const output = (group: GroupSoFar) => {
      const over = group.sessions.size < 2 ? null : sessionShare(sumsOfSessions(group.sessions.values()));
      return groupOutput(group.tally.finish(minutesOf(group)), over?.interval ?? null);
    };
    const first = this.sessions.reduce((least, s) => Math.min(least, s.startedMs), Number.POSITIVE_INFINITY);
    const points: DatedRate[] = [];
    this.sessions.forEach((session, index) => {
      const minutes = (seconds[index] as number) / 60;
      if (minutes > 0) points.push({ days: (session.startedMs - first) / MILLISECONDS_PER_DAY, rate: Math.max(1, session.met) / minutes });
    });
    const rungs = [...this.byRung].flatMap(([behaviour, groups]) =>
      [...groups].map(([rung, group]) => [`${keyPart(behaviour)}|${keyPart(rung)}`, group] as const),
    );
    rungs.sort(([a], [b]) => compareCodePoints(a, b));
    const sides = compareSides(this.left.tally, this.right.tally);
    const n = this.sessions.length;
    return {
      trials: this.overall.tally.n,
      sessions: n,
      work_time: given === n && n > 0 ? "given" : given === 0 ? "estimated" : "mixed",
      work_min: minutesOf(this.overall),
      rows_refused: this.refused,
      unknown_columns: this.unknownColumns,
      overall: output(this.overall),
      by_behaviour_rung: Object.fromEntries(rungs.map(([key, group]) => [key, output(group)])),
      by_side: { L: output(this.left), R: output(this.right) },
      sides: { fisher_p: sides.fisherP, logrank_chi2: sides.logRankChiSquared, logrank_p: sides.logRankP, index: sides.index },
      trend: { response_rate_per_week_factor: weeklyFactor(points), points: points.length },
    };
  }
}

/** What the trials of a file come to. */
export type MeasuresOutput = ReturnType<TrialsAnalysis["finish"]>;
