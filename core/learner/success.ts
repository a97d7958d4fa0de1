import type { Learner } from "./face";

/** Numbers of the learner on the logit. */
export interface SuccessTemper {
  /** Chance of a met answer on the first rung where nothing is learned. */
  readonly floor: number;
  /** What a success adds to the logit. */
  readonly gain: number;
  /** What a failure takes from it. */
  readonly loss: number;
  /** What a harder rung takes from it. */
  readonly step: number;
  readonly forgettingDays: number;
}

const logit = (p: number) => Math.log(p / (1 - p));
const HIGHEST = 4;

/**
 * A learner driven by success, on the logit: a success adds, a failure takes,
 * a harder rung takes a step. Below a chance of loss/(gain + loss) it loses
 * more than it gains, so haste leads to where nothing is learned any more.
 */
export class SuccessLearner implements Learner {
  private skill: number;
  private readonly start: number;
  private rung = 1;

  constructor(private readonly temper: SuccessTemper) {
    this.start = logit(temper.floor);
    this.skill = this.start;
  }

  chanceOfMet(): number {
    return this.chanceOn(this.rung);
  }

  chanceOn(rung: number): number {
    return 1 / (1 + Math.exp(-(this.skill - this.temper.step * (rung - 1))));
  }

  goToRung(rung: number): void {
    this.rung = rung;
  }

  take(answer: "success" | "neither" | "failure"): void {
    const { gain, loss, step } = this.temper;
    // A rung that is always met teaches nothing more.
    if (answer === "success") this.skill = Math.min(this.skill + gain, Math.max(this.skill, HIGHEST + step * (this.rung - 1)));
    else if (answer === "failure") this.skill -= loss;
  }

  rest(days: number): void {
    this.skill = this.start + (this.skill - this.start) * Math.exp(-days / this.temper.forgettingDays);
  }
}
