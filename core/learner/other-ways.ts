import type { Learner } from "./face";
import { LinearLearner, type LinearTemper } from "./linear";

/** Numbers of the learner that has a rung or has it not. */
export interface AllOrNoneTemper {
  /** Chance of a met answer on a rung it does not have. */
  readonly guess: number;
  /** Chance on one it has. */
  readonly known: number;
  /** Successes on a rung until it has it. */
  readonly successes: number;
}

/**
 * All or none (after Bower 1961, from memory; there the moment is drawn, here it
 * comes after so many successes): a rung is guessed at until it is had, and then
 * it stays.
 */
export class AllOrNoneLearner implements Learner {
  private rung = 1;
  private readonly successes = new Map<number, number>();

  constructor(private readonly temper: AllOrNoneTemper) {}

  chanceOfMet(): number {
    return this.chanceOn(this.rung);
  }

  chanceOn(rung: number): number {
    const { guess, known, successes } = this.temper;
    return (this.successes.get(Math.round(rung)) ?? 0) >= successes ? known : guess;
  }

  goToRung(rung: number): void {
    this.rung = rung;
  }

  take(answer: "success" | "neither" | "failure"): void {
    const at = Math.round(this.rung);
    if (answer === "success") this.successes.set(at, (this.successes.get(at) ?? 0) + 1);
  }

  rest(): void {
    // What it has it keeps.
  }
}

/** A horse that learns by practice alone: each ask brings it on as much, whatever became of it. */
export class PractisingLearner extends LinearLearner implements Learner {
  override take(_answer: "success" | "neither" | "failure", factor = 1): void {
    super.take("success", factor);
  }
}

/** Numbers of a learner whose days and minutes come in waves. */
export interface WanderingTemper extends LinearTemper {
  /** Half of the way from its worst to its best, on the logit. */
  readonly wave: number;
  /** Asks from one worst to the next. */
  readonly asksAWave: number;
}

/** A horse that wanders: as the linear one, better and worse in slow waves that nothing it is asked brings about. */
export class WanderingLearner extends LinearLearner implements Learner {
  private asks = 0;

  constructor(private readonly wandering: WanderingTemper) {
    super(wandering);
  }

  override chanceOfMet(): number {
    return this.inWaves(super.chanceOfMet());
  }

  override chanceOn(rung: number): number {
    return this.inWaves(super.chanceOn(rung));
  }

  private inWaves(p: number): number {
    const { wave, asksAWave } = this.wandering;
    return 1 / (1 + ((1 - p) / p) * Math.exp(-wave * Math.sin((2 * Math.PI * this.asks) / asksAWave)));
  }

  override take(answer: "success" | "neither" | "failure", factor = 1): void {
    this.asks++;
    super.take(answer, factor);
  }
}
