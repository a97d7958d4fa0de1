import { LinearLearner, type LinearTemper } from "./linear";

/** The linear operator with failures running that cost more each. */
export interface SouringTemper extends LinearTemper {
  /** From so many failures running on, none costs more than the one before. */
  readonly mostRunning: number;
}

/**
 * A horse that sours: the j-th failure running takes j times the share the
 * first one takes, up to a most. A success ends the run; a try does not.
 */
export class SouringLearner extends LinearLearner {
  private running = 0;

  constructor(
    private readonly souring: SouringTemper,
    start = souring.floor,
  ) {
    super(souring, start);
  }

  override take(answer: "success" | "neither" | "failure", factor = 1): void {
    if (answer === "success") this.running = 0;
    if (answer !== "failure") {
      super.take(answer, factor);
      return;
    }
    this.running = Math.min(this.souring.mostRunning, this.running + 1);
    this.p *= (1 - this.temper.unlearning) ** this.running;
  }

  override rest(days: number): void {
    this.running = 0;
    super.rest(days);
  }
}
