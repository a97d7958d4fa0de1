import type { Outcome } from "../evidence/group";
import type { Criterion } from "../ladder/criterion";
import { type SignKind, stopsWork } from "../signs";
import { shortfallOf } from "./met-check";
import type { Handler, LoggedWay, Trial } from "./trial";

/**
 * A human tap of the answer can trail the release by a moment. An answer this
 * soon after the release still belongs to the trial: the release came early.
 */
export const LATE_ANSWER_MS = 2000;

/** What stands around a trial when it begins. */
export interface TrialSurroundings {
  readonly blockIndex: number | null;
  readonly criterion: Criterion | null;
  readonly side: "L" | "R" | null;
  readonly zone: string | null;
  /** Who handles, where that is not whoever the session was begun for. */
  readonly handler: Handler | null;
}

/** From the mildest. */
const TROUBLES: readonly (string | null)[] = ["tension", "pain", "danger"];

/**
 * The worse of what was seen so far and a sign; calm and plain counts are no trouble.
 * @example worstOf("tension", "ease") // "tension"
 */
export function worstOf(before: Trial["troubled"], kind: SignKind): Trial["troubled"] {
  const rank = (one: string | null) => TROUBLES.indexOf(one);
  return rank(kind) > rank(before) ? (kind as Trial["troubled"]) : before;
}

interface Answer {
  readonly ms: number;
  readonly answer: "met" | "try" | "wrong";
}

type EndedBy = "criterion" | "left" | "handler";

const seconds = (ms: number) => ms / 1000;

/** Gathers the events of one timed trial, from its ask until the next ask, and turns them into a trial. */
export class TrialBuilder {
  readonly eventIds: string[];
  readonly phaseSteps: { ms: number; phase: number }[] = [];
  readonly reinforcerKinds: string[] = [];
  /** What the handler did while it was open, and how often. */
  readonly handlerActs: Record<string, number> = {};
  private readonly answers: Answer[] = [];
  private readonly faults = new Set<string>();
  private criterionMs: number | null = null;
  private releaseMs: number | null = null;
  private refusedMs: number | null = null;
  private markMs: number | null = null;
  private feedMs: number | null = null;
  private pieces = 0;
  private stayEnd: { ms: number; by: EndedBy } | null = null;
  private helped: string | null = null;
  private measured: { value: number; unit: string } | null = null;
  private ease: number | null = null;
  private movement: number | null = null;
  private closedMs: number | null = null;
  private troubled: Trial["troubled"] = null;
  private safetyMs: number | null = null;

  constructor(
    readonly askId: string,
    readonly askMs: number,
    phase: number | null,
    readonly around: TrialSurroundings,
  ) {
    this.eventIds = [askId];
    if (phase !== null) this.phaseSteps.push({ ms: askMs, phase });
  }

  /** Still waiting for its release, refusal or the next ask. */
  get open(): boolean {
    return this.releaseMs === null && this.refusedMs === null && this.closedMs === null;
  }

  /** When it was released, refused or cut off; null while it is open. */
  get endMs(): number | null {
    return this.releaseMs ?? this.refusedMs ?? this.closedMs;
  }

  get answered(): boolean {
    return this.answers.length > 0 || this.criterionMs !== null;
  }

  /** When the last answer came, or null. */
  get lastAnswerMs(): number | null {
    return this.answers.at(-1)?.ms ?? null;
  }

  get reached(): boolean {
    return this.criterionMs !== null;
  }

  /** The last answer so far, reaching the criterion included. */
  get lastAnswer(): "met" | "try" | "wrong" | null {
    return this.criterionMs !== null ? "met" : (this.answers.at(-1)?.answer ?? null);
  }

  private get hasGoodAnswer(): boolean {
    return this.criterionMs !== null || this.answers.some((a) => a.answer !== "wrong");
  }

  phase(ms: number, phase: number): void {
    if (!this.open) return;
    const before = this.phaseSteps.at(-1)?.phase ?? 0;
    const last = this.answers.at(-1);
    if (last !== undefined && last.answer !== "wrong" && phase > before) this.faults.add("phase raised during a try");
    this.phaseSteps.push({ ms, phase });
  }

  /** @returns false where the answer does not belong to this trial: nobody had asked. */
  response(ms: number, answer: "met" | "try" | "wrong" | "refused", phase: number | null): boolean {
    if (this.refusedMs !== null) {
      this.helped ??= answer;
      return true;
    }
    if (!this.open) {
      const justReleased = this.releaseMs !== null && this.closedMs === null && ms - this.releaseMs <= LATE_ANSWER_MS;
      if (!justReleased || this.hasGoodAnswer || answer === "refused") return false;
    }
    if (phase !== null && phase !== this.phaseSteps.at(-1)?.phase) this.phaseSteps.push({ ms, phase });
    if (answer === "refused") this.refusedMs = ms;
    else this.answers.push({ ms, answer });
    return true;
  }

  criterion(ms: number): void {
    if (this.refusedMs === null && this.closedMs === null) this.criterionMs = ms;
  }

  release(ms: number): void {
    if (this.open) this.releaseMs = ms;
  }

  mark(ms: number): void {
    if (this.refusedMs !== null && ms >= this.refusedMs) return;
    if (this.markMs !== null) return;
    this.markMs = ms;
    if (!this.answered) this.faults.add("mark before response");
    if (this.feedMs !== null) this.faults.add("food before mark");
  }

  feed(ms: number, pieces: number): void {
    const wait = this.around.criterion?.polite_s;
    if (wait !== undefined && this.feedMs === null && this.markMs !== null && seconds(ms - this.markMs) < wait)
      this.faults.add("food before the wait");
    this.feedMs ??= ms;
    this.pieces += pieces;
  }

  reinforce(what: string): void {
    this.reinforcerKinds.push(what);
  }

  stay(ms: number, by: EndedBy): void {
    this.stayEnd ??= { ms, by };
  }

  measure(strand: string, value: number, unit: string): void {
    if (strand === "ease") this.ease = value;
    else if (strand === "movement") this.movement = value;
    else if (strand === this.around.criterion?.working?.strand) this.measured = { value, unit };
  }

  /**
   * A sign within the ask. Danger or pain ends it: the line is given at once,
   * and whatever comes after belongs to it no more.
   */
  sign(ms: number, kind: SignKind): void {
    this.troubled = worstOf(this.troubled, kind);
    if (!this.open || !stopsWork(kind)) return;
    this.safetyMs = ms;
    this.closedMs = ms;
  }

  /** The next ask, the end of the block, a break or the finish: nothing more belongs to its waiting. */
  close(ms: number): void {
    if (this.open) this.closedMs = ms;
  }

  /** The stay, where the rung asks for one and the horse was in place. */
  private stayed(
    finalAnswer: Answer | undefined,
    required: number | undefined,
  ): { seconds: number; by: EndedBy; reachedMs: number | null } | null {
    if (required === undefined || finalAnswer === undefined || finalAnswer.answer === "wrong") return null;
    const end = this.stayEnd?.ms ?? this.criterionMs ?? this.releaseMs ?? this.closedMs;
    if (end === null) return null;
    const stayedSeconds = Math.max(0, seconds(end - finalAnswer.ms));
    const reached = this.criterionMs ?? (stayedSeconds >= required ? finalAnswer.ms + required * 1000 : null);
    const by = this.stayEnd?.by ?? (reached !== null ? "criterion" : "handler");
    return { seconds: stayedSeconds, by, reachedMs: reached };
  }

  /**
   * The trial, or null while it is open, or where it was cut off before any answer came.
   * @param stopped the ask was ended by the block, a break or the finish, not by a next ask.
   */
  build(number: number, stopped: boolean): Trial | null {
    const { endMs } = this;
    if (endMs === null) return null;
    if (this.closedMs !== null && this.safetyMs === null && !this.answered && stopped) return null;
    const criterion = this.around.criterion;
    const safety = this.safetyMs !== null;
    const final: Answer | undefined =
      this.answers.at(-1) ?? (this.criterionMs === null ? undefined : { ms: this.criterionMs, answer: "met" });
    const refused = !safety && (this.refusedMs !== null || final === undefined);
    const tapped: Outcome =
      safety || final === undefined
        ? safety
          ? "miss"
          : "refused"
        : refused
          ? "refused"
          : this.criterionMs !== null && final.answer !== "wrong"
            ? "met"
            : final.answer === "wrong"
              ? "miss"
              : final.answer;
    const stay = refused || safety ? null : this.stayed(final, criterion?.stay_s);
    const good = tapped === "met" || tapped === "try";
    const reachedMs = tapped !== "met" ? null : stay !== null ? stay.reachedMs : (this.criterionMs ?? final?.ms ?? null);
    if (this.releaseMs !== null && this.refusedMs === null && !good) this.faults.add("release without a try");
    const until = refused ? endMs : Math.max(final?.ms ?? endMs, this.criterionMs ?? 0);
    const phase = this.phaseSteps.reduce<number | null>(
      (most, step) => (step.ms <= until && (most === null || step.phase > most) ? step.phase : most),
      null,
    );
    const latencySeconds = good && final !== undefined ? seconds(final.ms - this.askMs) : null;
    const firstMs = this.answers[0]?.ms ?? this.criterionMs;
    const lag = (from: number | null, to: number | null) => (from === null || to === null ? null : seconds(to - from));
    const value = this.measured?.value ?? stay?.seconds ?? null;
    const wrong = this.answers.filter((a) => a.answer === "wrong").length;
    const shortfall =
      tapped === "met" && criterion !== null
        ? shortfallOf(criterion, {
            phase,
            latencySeconds,
            value,
            stayedSeconds: stay?.seconds ?? null,
            side: this.around.side,
            ease: this.ease,
            movement: this.movement,
            handlerActs: this.handlerActs,
          })
        : null;
    const released = this.releaseMs !== null && this.refusedMs === null;
    const fed = this.feedMs !== null;
    return {
      number,
      blockIndex: this.around.blockIndex,
      askMs: this.askMs,
      endMs,
      answerMs: refused ? null : (final?.ms ?? null),
      markMs: this.markMs,
      feedMs: this.feedMs,
      tapped,
      outcome: shortfall === null ? tapped : "try",
      shortfall,
      overridden: false,
      side: this.around.side,
      zone: this.around.zone,
      phase,
      wrongBefore: tapped === "miss" && !safety ? wrong - 1 : wrong,
      latencySeconds,
      waitedSeconds: refused || safety ? seconds(endMs - this.askMs) : seconds((final?.ms ?? endMs) - this.askMs),
      firstAnswerSeconds: firstMs === null || firstMs === undefined ? null : seconds(firstMs - this.askMs),
      releaseLagSeconds: released ? lag(reachedMs, this.releaseMs) : null,
      markLagSeconds: lag(reachedMs, this.markMs),
      feedDelaySeconds: lag(this.markMs, this.feedMs),
      released,
      marked: this.markMs !== null,
      reinforced: good && (released || this.markMs !== null || fed || this.reinforcerKinds.length > 0),
      reinforcers: this.pieces,
      value,
      unit: this.measured?.unit ?? (stay === null ? null : "s"),
      endedBy: stay?.by ?? null,
      ease: this.ease,
      movement: this.movement,
      handler: this.around.handler,
      handlerActs: this.handlerActs,
      helped: this.helped,
      faults: safety ? [] : [...this.faults],
      troubled: this.troubled,
      safety,
      logged: "timed" satisfies LoggedWay,
      note: null,
      phaseSteps: this.phaseSteps,
      reinforcerKinds: this.reinforcerKinds,
      eventId: this.askId,
      eventIds: this.eventIds,
    };
  }
}
