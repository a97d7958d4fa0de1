import { rightAnswers } from "./incidence";
import { type SortedWaitings, type SurvivalStep, survivalFromSorted } from "./latency";
import { NumberColumn } from "./number-column";
import { quantileOfSorted } from "./quantile";
import { chanceShareAtLeast, type Interval, wilsonInterval } from "./shares";

/** How a trial ended. */
export type Outcome = "met" | "try" | "miss" | "refused";

/** What the measures need of a trial. Seconds throughout; null where it is not known. */
export interface MeasuredTrial {
  readonly outcome: Outcome;
  readonly phase: number | null;
  readonly latencySeconds: number | null;
  readonly waitedSeconds: number | null;
  readonly releaseLagSeconds: number | null;
  readonly markLagSeconds: number | null;
  readonly feedDelaySeconds: number | null;
  readonly released: boolean | null;
  readonly marked: boolean | null;
  readonly reinforced: boolean | null;
  readonly reinforcers: number | null;
}

/** Lags in seconds; null where none was timed. */
export interface LagMeasures {
  readonly n: number;
  readonly median: number | null;
  readonly p90: number | null;
  readonly lateShare: number | null;
}

/** The measures of a group of trials. Rates are per minute of working time; null where there is nothing to compute. */
export interface GroupMeasures {
  readonly n: number;
  readonly met: number;
  readonly try: number;
  readonly miss: number;
  readonly refused: number;
  readonly success: number | null;
  readonly wilson95: Interval | null;
  readonly chanceAtLeast80: number | null;
  readonly workMinutes: number;
  readonly asksPerMinute: number | null;
  readonly responsesPerMinute: number | null;
  readonly triesPerMinute: number | null;
  readonly reinforcedPerMinute: number | null;
  readonly releasesPerMinute: number | null;
  readonly marksPerMinute: number | null;
  readonly foodPerMinute: number | null;
  readonly reinforced: number;
  readonly released: number;
  readonly marked: number;
  readonly foodPieces: number;
  readonly metAtLightest: number;
  readonly metWithPhase: number;
  readonly lightness: number | null;
  readonly meanPhaseMet: number | null;
  readonly latency: {
    readonly answered: number;
    readonly censored: number;
    /** Of the product-limit estimate, which takes a wrong answer for one cut off; see halfAnsweredSeconds for what may be said. */
    readonly medianSeconds: number | null;
    readonly steps: readonly SurvivalStep[];
    /** Wrong answers among those cut off. */
    readonly wrong: number;
    /** Seconds after which half of all asks had their right answer, wrong answers counted as what they are; null where fewer ever do. */
    readonly halfAnsweredSeconds: number | null;
    /** Share of all asks that had their right answer after so many seconds. */
    readonly rightSteps: readonly (readonly [seconds: number, share: number])[];
  };
  readonly releaseLag: LagMeasures;
  readonly markLag: LagMeasures;
  readonly feedDelay: LagMeasures;
}

/** A release or a mark later than this is late, in seconds (common practice, no source). */
export const LATE_RELEASE_SECONDS = 0.5;
/** Food later than this after the mark is late, in seconds (common practice, no source). */
export const LATE_FEED_SECONDS = 3;

/** Everything a tally holds, as plain data that can go to another thread. */
export interface GroupTallyState {
  readonly counts: readonly number[];
  readonly columns: readonly Float64Array[];
}

class LagColumn {
  private readonly column = new NumberColumn();
  private late = 0;
  constructor(private readonly limitSeconds: number) {}

  add(seconds: number | null): void {
    if (seconds === null) return;
    this.column.push(seconds);
    if (seconds > this.limitSeconds) this.late++;
  }

  packed(): Float64Array {
    return this.column.packed();
  }

  addAll(lags: Float64Array): void {
    this.column.pushAll(lags);
    for (const seconds of lags) if (seconds > this.limitSeconds) this.late++;
  }

  finish(): LagMeasures {
    const sorted = this.column.sorted();
    const n = sorted.length;
    return {
      n,
      median: quantileOfSorted(sorted, 0.5),
      p90: quantileOfSorted(sorted, 0.9),
      lateShare: n === 0 ? null : this.late / n,
    };
  }
}

/**
 * Sums up trials one by one, so that the same arithmetic serves a session on
 * screen and a file of a million rows. Memory grows by the times kept: eight
 * bytes each for a latency and a lag.
 */
export class GroupTally {
  met = 0;
  try = 0;
  miss = 0;
  refused = 0;
  private reinforced = 0;
  private released = 0;
  private marked = 0;
  private foodPieces = 0;
  private metAtLightest = 0;
  private metWithPhase = 0;
  private phaseSum = 0;
  private readonly answers = new NumberColumn();
  private readonly wrongs = new NumberColumn();
  private readonly refusals = new NumberColumn();
  private readonly releaseLag = new LagColumn(LATE_RELEASE_SECONDS);
  private readonly markLag = new LagColumn(LATE_RELEASE_SECONDS);
  private readonly feedDelay = new LagColumn(LATE_FEED_SECONDS);

  get n(): number {
    return this.met + this.try + this.miss + this.refused;
  }

  add(trial: MeasuredTrial): void {
    this[trial.outcome]++;
    if (trial.outcome === "met" && trial.phase !== null) {
      this.metWithPhase++;
      this.phaseSum += trial.phase;
      if (trial.phase === 1) this.metAtLightest++;
    }
    if (trial.released) this.released++;
    if (trial.marked) this.marked++;
    if (trial.reinforced) this.reinforced++;
    this.foodPieces += trial.reinforcers ?? 0;
    const answered = (trial.outcome === "met" || trial.outcome === "try") && trial.latencySeconds !== null;
    if (answered) this.answers.push(trial.latencySeconds as number);
    else {
      const waited = trial.waitedSeconds ?? trial.latencySeconds;
      if (waited !== null) (trial.outcome === "miss" ? this.wrongs : this.refusals).push(waited);
    }
    this.releaseLag.add(trial.releaseLagSeconds);
    this.markLag.add(trial.markLagSeconds);
    this.feedDelay.add(trial.feedDelaySeconds);
  }

  /** What the tally holds, for {@link absorb} elsewhere. */
  state(): GroupTallyState {
    return {
      counts: [
        this.met,
        this.try,
        this.miss,
        this.refused,
        this.reinforced,
        this.released,
        this.marked,
        this.foodPieces,
        this.metAtLightest,
        this.metWithPhase,
        this.phaseSum,
      ],
      columns: [this.answers, this.wrongs, this.refusals, this.releaseLag, this.markLag, this.feedDelay].map((column) => column.packed()),
    };
  }

  /** Adds the trials another tally has summed up; the result does not depend on how they were divided. */
  absorb({ counts, columns }: GroupTallyState): void {
    const [met, tried, miss, refused, reinforced, released, marked, food, lightest, withPhase, phases] = counts as [
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
    ];
    const [answers, wrongs, refusals, releaseLag, markLag, feedDelay] = columns as [
      Float64Array,
      Float64Array,
      Float64Array,
      Float64Array,
      Float64Array,
      Float64Array,
    ];
    this.met += met;
    this.try += tried;
    this.miss += miss;
    this.refused += refused;
    this.reinforced += reinforced;
    this.released += released;
    this.marked += marked;
    this.foodPieces += food;
    this.metAtLightest += lightest;
    this.metWithPhase += withPhase;
    this.phaseSum += phases;
    this.answers.pushAll(answers);
    this.wrongs.pushAll(wrongs);
    this.refusals.pushAll(refusals);
    this.releaseLag.addAll(releaseLag);
    this.markLag.addAll(markLag);
    this.feedDelay.addAll(feedDelay);
  }

  /** Answer and censoring times in rising order, for the log-rank test. Add no more trials after it. */
  sortedWaitings(): SortedWaitings {
    const censorings = new Float64Array(this.wrongs.length + this.refusals.length);
    censorings.set(this.wrongs.sorted());
    censorings.set(this.refusals.sorted(), this.wrongs.length);
    return { answers: this.answers.sorted(), censorings: censorings.sort() };
  }

  /**
   * The measures, with rates per minute of `workMinutes`.
   * @throws RangeError where workMinutes is below 0.
   */
  finish(workMinutes: number): GroupMeasures {
    if (!(workMinutes >= 0)) throw new RangeError("GroupTally.finish: workMinutes must be 0 or more");
    const n = this.n;
    const perMinute = (count: number) => (workMinutes > 0 ? count / workMinutes : null);
    const { answers, censorings } = this.sortedWaitings();
    const curve = survivalFromSorted(answers, censorings);
    const right = rightAnswers({ right: answers, wrong: this.wrongs.sorted(), refused: this.refusals.sorted() });
    return {
      n,
      met: this.met,
      try: this.try,
      miss: this.miss,
      refused: this.refused,
      success: n === 0 ? null : this.met / n,
      wilson95: wilsonInterval(this.met, n),
      chanceAtLeast80: n === 0 ? null : chanceShareAtLeast(0.8, this.met, n),
      workMinutes,
      asksPerMinute: perMinute(n),
      responsesPerMinute: perMinute(this.met),
      triesPerMinute: perMinute(this.try),
      reinforcedPerMinute: perMinute(this.reinforced),
      releasesPerMinute: perMinute(this.released),
      marksPerMinute: perMinute(this.marked),
      foodPerMinute: perMinute(this.foodPieces),
      reinforced: this.reinforced,
      released: this.released,
      marked: this.marked,
      foodPieces: this.foodPieces,
      metAtLightest: this.metAtLightest,
      metWithPhase: this.metWithPhase,
      lightness: this.metWithPhase === 0 ? null : this.metAtLightest / this.metWithPhase,
      meanPhaseMet: this.metWithPhase === 0 ? null : this.phaseSum / this.metWithPhase,
      latency: {
        answered: curve.answered,
        censored: curve.censored,
        medianSeconds: curve.medianSeconds,
        steps: curve.steps,
        wrong: this.wrongs.length,
        halfAnsweredSeconds: right.halfSeconds,
        rightSteps: right.steps,
      },
      releaseLag: this.releaseLag.finish(),
      markLag: this.markLag.finish(),
      feedDelay: this.feedDelay.finish(),
    };
  }
}

/** The measures of a list of trials over `workMinutes` minutes of work. @example measureGroup([], 0) // { n: 0, met: 0, try: 0, … } */
export function measureGroup(trials: Iterable<MeasuredTrial>, workMinutes: number): GroupMeasures {
  const tally = new GroupTally();
  for (const trial of trials) tally.add(trial);
  return tally.finish(workMinutes);
}
