import type { Learner } from "./face";
import { SuccessLearner, type SuccessTemper } from "./success";

/** Numbers of a learner with fear, on the logit. */
export interface FearfulTemper extends SuccessTemper {
  /** What a failure of its own adds to its fear, and so takes from every rung. */
  readonly startle: number;
  /** Fear grows no further than this. */
  readonly mostFear: number;
  /** Share of its fear that a success takes away. */
  readonly soothed: number;
  /** Days in which fear falls to 1/e of what it was. */
  readonly calmingDays: number;
}

/**
 * A horse whose own wrong answers frighten it: fear takes from the logit on
 * every rung, grows with each failure, and goes slowly, by successes and over
 * days. What it has learned it keeps; it cannot show it.
 */
export class FearfulLearner extends SuccessLearner implements Learner {
  private fear = 0;

  constructor(private readonly fearful: FearfulTemper) {
    super(fearful);
  }

  override chanceOn(rung: number): number {
    const open = super.chanceOn(rung);
    return 1 / (1 + ((1 - open) / open) * Math.exp(this.fear));
  }

  override take(answer: "success" | "neither" | "failure"): void {
    super.take(answer);
    const { startle, mostFear, soothed } = this.fearful;
    if (answer === "success") this.fear *= 1 - soothed;
    else if (answer === "failure") this.fear = Math.min(mostFear, this.fear + startle);
  }

  override rest(days: number): void {
    super.rest(days);
    this.fear *= Math.exp(-days / this.fearful.calmingDays);
  }
}
