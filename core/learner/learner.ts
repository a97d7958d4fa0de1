import { type Chance, drawExponential, drawNormal } from "../chance";
import type { Outcome } from "../evidence";
import { NOT_MET_SHARES, TRY_SHARE } from "./failing";
import { LinearLearner } from "./linear";

/**
 * A simulated horse, so that the demo and the tests have something true to
 * work on. The model, in full:
 *
 * - Each side is a linear learner of its own; a try leaves it as it is. The
 *   weaker side begins lower and learns by a smaller α.
 * - A stall: from the rung `stallsAtRung` on, α is cut to a fifth until
 *   `stallTrials` trials have been worked there.
 * - An answer that is not met is a try, a miss or a refusal by fixed chances;
 *   a tired horse (past `freshTrials` in a session) refuses and misses more.
 * - The phase that worked grows lighter as p grows; latency is the dwell of
 *   the phases gone through plus an exponential wait, shorter as p grows.
 *
 * It is invented for demonstration; it is no claim about real horses.
 */
export interface Temper {
  readonly floor: number;
  readonly learning: number;
  readonly unlearning: number;
  readonly kept: number;
  readonly forgettingDays: number;
  readonly weakSide: "L" | "R";
  /** Share of `learning` on the weaker side. */
  readonly weakLearning: number;
  readonly meanWaitSeconds: number;
  readonly freshTrials: number;
  readonly tension: number;
  readonly stallsAtRung: number | null;
  readonly stallTrials: number;
  /** Handled well: its answers grow lighter and softer as it learns, so that a rung that asks for that is not out of reach for good. */
  readonly handledWell?: true;
}

/** One answer of the simulated horse. */
export interface SimulatedAnswer {
  readonly outcome: Outcome;
  readonly phase: number;
  /** Ask to first movement, in seconds; for a refusal, how long it was waited for. */
  readonly latencySeconds: number;
  /** Seconds to a wrong answer given first, or null. */
  readonly wrongFirstSeconds: number | null;
  readonly ease: number;
  readonly signal: "ease" | "tension" | null;
}

const clamp = (x: number, low: number, high: number) => Math.min(high, Math.max(low, x));
/** What is left of learning where a horse stalls. */
const STALLED = 0.2;

export class SimulatedHorse {
  private readonly sides: Readonly<Record<"L" | "R", LinearLearner>>;
  private rung = 1;
  private reach = 1;
  private trialsToday = 0;
  private readonly trialsOnRung = new Map<number, number>();

  constructor(
    private readonly temper: Temper,
    private readonly chance: Chance,
  ) {
    const side = (one: "L" | "R") =>
      one === temper.weakSide
        ? new LinearLearner({ ...temper, learning: temper.learning * temper.weakLearning }, temper.floor * 0.8)
        : new LinearLearner(temper);
    this.sides = { L: side("L"), R: side("R") };
  }

  /** Chance of a met answer on a side, now. */
  chanceOfMet(side: "L" | "R"): number {
    return this.sides[side].chanceOfMet();
  }

  /**
   * Puts the horse on a rung: harder loses some of the gain, easier gives some back.
   * @param reach share of its chance that is left where a rung lies too far for one step; under 1 nothing is learned or lost there.
   */
  goToRung(rung: number, reach = 1): void {
    this.reach = reach;
    this.sides.L.goToRung(rung);
    this.sides.R.goToRung(rung);
    this.rung = rung;
  }

  /** Days off before the next session. */
  rest(days: number): void {
    this.sides.L.rest(days);
    this.sides.R.rest(days);
    this.trialsToday = 0;
  }

  /**
   * Asks once.
   * @param dwellSeconds dwell of each cue phase, from the lightest.
   * @param maximumSeconds how long a refusal is waited for.
   */
  ask(side: "L" | "R", dwellSeconds: readonly number[], maximumSeconds: number): SimulatedAnswer {
    const { temper, chance } = this;
    this.trialsToday++;
    this.trialsOnRung.set(this.rung, (this.trialsOnRung.get(this.rung) ?? 0) + 1);
    const tired = clamp((this.trialsToday - temper.freshTrials) * 0.02, 0, 0.3);
    const p = clamp(this.chanceOfMet(side) * this.reach - tired, 0.02, 0.97);
    const draw = chance();
    const kind = chance();
    const outcome: Outcome =
      draw < p ? "met" : kind < TRY_SHARE - tired ? "try" : kind < TRY_SHARE + NOT_MET_SHARES.miss ? "miss" : "refused";
    const lightest = temper.handledWell ? 0.2 + 0.78 * p : 0.25 + 0.65 * p;
    let phase = 1;
    while (phase < dwellSeconds.length && chance() > lightest) phase++;
    if (outcome === "refused") phase = dwellSeconds.length;
    const gone = dwellSeconds.slice(0, phase - 1).reduce((sum, s) => sum + s, 0);
    const wait = 0.25 + drawExponential(chance, temper.meanWaitSeconds * (1.3 - p));
    const latencySeconds =
      outcome === "refused" ? maximumSeconds : Math.min(gone + Math.min(wait, (dwellSeconds[phase - 1] ?? 2) * 1.3), maximumSeconds * 0.95);
    const wrongFirst = outcome === "met" && chance() < 0.12 * (1 - p) + 0.02;
    const [soft, spread] = temper.handledWell ? [2.1 + 1.6 * p - 1.2 * temper.tension, 0.5] : [2.2 + 1.2 * p - 1.5 * temper.tension, 0.6];
    const ease = clamp(Math.round(drawNormal(chance, soft - tired, spread)), 0, 4);
    const signalDraw = chance();
    const signal = signalDraw < 0.06 + 0.06 * temper.tension + tired / 3 ? "tension" : signalDraw > 0.9 - 0.1 * p ? "ease" : null;
    return { outcome, phase, latencySeconds, wrongFirstSeconds: wrongFirst ? latencySeconds * 0.5 : null, ease, signal };
  }

  /**
   * What the horse takes from a trial.
   * @param taught how much of it, from 0 to 1: a late release teaches less.
   */
  learn(side: "L" | "R", outcome: Outcome, reinforced: boolean, taught = 1): void {
    if (this.reach < 1) return;
    const { temper } = this;
    const stalled =
      temper.stallsAtRung !== null && this.rung === temper.stallsAtRung && (this.trialsOnRung.get(this.rung) ?? 0) < temper.stallTrials;
    if (outcome === "met" && reinforced) this.sides[side].take("success", stalled ? STALLED : taught);
    else if (outcome === "miss" || outcome === "refused") this.sides[side].take("failure");
  }
}
