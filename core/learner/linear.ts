import type { Learner } from "./face";

/** Numbers of the linear operator. Shares from 0 to 1. */
export interface LinearTemper {
  /** Chance of a met answer where nothing is learned. */
  readonly floor: number;
  /** α: share of what is missing that a success brings. */
  readonly learning: number;
  /** β: share of what is there that a failure takes. */
  readonly unlearning: number;
  /** κ: share of the gain above the floor that a harder rung keeps. */
  readonly kept: number;
  readonly forgettingDays: number;
}

const HIGHEST_ON_AN_EASIER_RUNG = 0.95;
const clamp = (x: number, low: number, high: number) => Math.min(high, Math.max(low, x));

/**
 * Linear operator learning (Bush & Mosteller 1955): p ← p + α(1 − p) after a
 * success, p ← p − βp after a failure. A new rung keeps a share κ of what was
 * gained above the floor, an easier one gives the loss back by the same share;
 * days off decay it towards the floor.
 */
export class LinearLearner implements Learner {
  protected p: number;
  private rung = 1;

  constructor(
    protected readonly temper: LinearTemper,
    start = temper.floor,
  ) {
    this.p = start;
  }

  chanceOfMet(): number {
    return this.p;
  }

  chanceOn(rung: number): number {
    return this.ownChanceOn(rung);
  }

  private ownChanceOn(rung: number): number {
    const { floor, kept } = this.temper;
    let p = this.p;
    let r = this.rung;
    for (; r + 1 <= rung; r++) p = floor + kept * (p - floor);
    for (; r - 1 >= rung; r--) p = clamp(floor + (p - floor) / kept, floor * 0.5, HIGHEST_ON_AN_EASIER_RUNG);
    return r === rung ? p : clamp(floor + (p - floor) * kept ** (rung - r), floor * 0.5, HIGHEST_ON_AN_EASIER_RUNG);
  }

  goToRung(rung: number): void {
    this.p = this.ownChanceOn(rung);
    this.rung = rung;
  }

  /** @param factor of the learning: under 1 where something holds it up. */
  take(answer: "success" | "neither" | "failure", factor = 1): void {
    if (answer === "success") this.p += this.temper.learning * factor * (1 - this.p);
    else if (answer === "failure") this.p -= this.temper.unlearning * this.p;
  }

  rest(days: number): void {
    const { floor, forgettingDays } = this.temper;
    this.p = floor + (this.p - floor) * Math.exp(-days / forgettingDays);
  }
}
