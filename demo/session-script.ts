import { type Chance, drawExponential, drawNormal, pick } from "@/core/chance";
import { calmAsked, criterionOf, type LadderPlan, NOT_SOFT_GRADE } from "@/core/ladder";
import type { SimulatedAnswer, SimulatedHorse } from "@/core/learner";
import { type BlockKind, SOFT_GRADE } from "@/core/record";
import type { EventLog } from "./event-log";

/** What one simulated block is about. */
export interface BlockScript {
  readonly plan: LadderPlan;
  readonly ladderId: string;
  readonly version: number;
  readonly behaviour: string;
  readonly number: number;
  readonly rung: number;
  readonly side: "L" | "R";
  readonly kind: BlockKind;
  readonly way: "timed" | "tally";
  /** How well the handler times the release: mean lag in seconds. */
  readonly handlerLagSeconds: number;
  /** How much longer the horse waits to answer in each zone of the place; 1 is as usual. */
  readonly zoneWaits: Readonly<Record<string, number>>;
  readonly leaves: { readonly chance: number; readonly to: string } | null;
  /** How much each answer teaches, from 0 to 1; left out where all of it does. */
  readonly taught?: number;
  /** Work on the circle: the gait asked for, and for how long after each answer. */
  readonly circle?: { readonly gait: string; readonly radiusMetres: number; readonly seconds: number };
  /** Chance of its own, so that zones do not change what the horse would have answered. */
  readonly whereChance: Chance;
}

const EASE_SIGNS = ["licks and chews", "lowers head", "blows out", "softens eye", "rests a hind foot"];
const TENSION_SIGNS = ["head high", "tail swishes", "paws", "braces"];

/** Plays trials of a simulated horse into an event log, as a recorder would have logged them. */
export class BlockPlayer {
  private askAgainSoon = false;

  constructor(
    private readonly horse: SimulatedHorse,
    private readonly log: EventLog,
    private readonly chance: Chance,
    private readonly script: BlockScript,
  ) {}

  start(): void {
    const { plan, ladderId, version, behaviour, number, rung, side, kind } = this.script;
    this.log.add("block.start", {
      block: number,
      behaviour,
      ladder: ladderId,
      version,
      rung,
      criterion: { ...criterionOf(plan, rung) },
      // A ladder without sides is worked from either, and nobody taps which.
      side: plan.strands.some(({ key }) => key === "side") ? side : "",
      kind,
      planned: plan.plannedRepetitions,
    });
    this.log.wait(1);
    if (this.script.circle !== undefined) this.gait("walk");
    this.goTo(pick(this.script.whereChance, Object.keys(this.script.zoneWaits)));
    this.log.wait(1);
  }

  private zone = "";

  private goTo(zone: string): void {
    if (zone === this.zone) return;
    this.zone = zone;
    this.log.add("zone", { zone });
  }

  /** After a trial the pair may move on, or the horse leave and come back. */
  private wander(): void {
    const { whereChance, zoneWaits, leaves } = this.script;
    if (leaves !== null && whereChance() < leaves.chance) {
      this.log.add("depart", { from: this.zone, to: leaves.to });
      this.log.wait(8 + whereChance() * 25);
      this.log.add("return");
      this.log.wait(3);
    } else if (whereChance() < 0.3) this.goTo(pick(whereChance, Object.keys(zoneWaits)));
  }

  end(): void {
    this.log.wait(3);
    this.log.add("block.end");
    this.log.wait(4);
  }

  /** One trial, with the pause after it. */
  trial(): void {
    const { plan, side, way } = this.script;
    const drawn = this.horse.ask(
      side,
      plan.phases.map((p) => p.dwellSeconds),
      plan.maximumSeconds,
    );
    const slower = drawn.outcome === "refused" ? 1 : (this.script.zoneWaits[this.zone] ?? 1);
    const answer = { ...drawn, latencySeconds: Math.min(drawn.latencySeconds * slower, plan.maximumSeconds * 0.95) };
    if (drawn.outcome === "refused") answer.latencySeconds = drawn.latencySeconds;
    if (way === "timed") this.timed(answer);
    else this.tally(answer);
    this.horse.learn(side, answer.outcome, answer.outcome === "met", this.script.taught);
    if (this.script.circle !== undefined && answer.outcome === "met") this.goRound(this.script.circle);
    if (answer.signal !== null) {
      this.log.wait(0.8);
      this.log.add("signal", { name: pick(this.chance, answer.signal === "ease" ? EASE_SIGNS : TENSION_SIGNS), class: answer.signal });
    }
    this.log.wait(this.askAgainSoon ? 1 : 5 + drawExponential(this.chance, 7));
    if (!this.askAgainSoon) this.wander();
    if (plan.conversation !== undefined) this.between(answer);
    this.askAgainSoon = false;
  }

  private gait(gait: string): void {
    const direction = this.script.side === "L" ? "left" : "right";
    this.log.add("gait", { gait, direction, radius_m: this.script.circle?.radiusMetres ?? null });
  }

  /** Some rounds at the gait that was asked for, then walk again. */
  private goRound({ gait, seconds }: NonNullable<BlockScript["circle"]>): void {
    this.log.wait(1);
    this.gait(gait);
    this.log.wait(seconds * (0.8 + 0.4 * this.script.whereChance()));
    this.gait("walk");
  }

  /** What happens before the next ask, where the ladder logs it. */
  private between({ outcome }: SimulatedAnswer): void {
    const { plan, whereChance: chance } = this.script;
    const { whenWrong, ownTimes = [], acts = [], pinned = [] } = plan.conversation ?? {};
    const wrong = outcome === "miss" || outcome === "refused";
    if (whenWrong !== undefined && wrong && chance() < 0.5) {
      const { did, met } = whenWrong;
      this.log.add("wrong", { did, met: chance() < 0.8 ? met : "let go and asked again", began: "edge", goes_on: true });
      this.log.wait(3 + drawExponential(chance, 4));
      this.log.add("wrong.end");
      this.log.wait(1);
    }
    if (ownTimes.includes("looks") && chance() < 0.15) {
      this.log.add("own.start", { what: "looks" });
      this.log.wait(2 + drawExponential(chance, 8));
      this.log.add("own.end", { what: "looks", ended_by: chance() < 0.8 ? "horse" : "handler" });
      this.log.wait(1);
    }
    if (acts.length > 0 && chance() < 0.3) this.log.add("handler", { act: pick(chance, acts), n: chance() < 0.3 ? 2 : 1 });
    const sign = pinned.length > 0 && chance() < 0.2 ? pick(chance, pinned) : null;
    if (sign !== null) this.log.add("signal", { name: sign.name, class: sign.class });
  }

  private lag(mean: number): number {
    return Math.max(0.05, drawNormal(this.chance, mean, mean * 0.35));
  }

  private timed(answer: SimulatedAnswer): void {
    const { plan, rung, handlerLagSeconds } = this.script;
    const { log } = this;
    const marks = plan.method !== "pressure-release";
    log.add("ask", { phase: 1 });
    // Phases are pressed as their dwell runs out; a wrong answer may come in between.
    let gone = 0;
    let phase = 1;
    const to = (seconds: number) => {
      log.wait(seconds - gone);
      gone = Math.max(gone, seconds);
    };
    const steps = plan.phases.slice(0, answer.phase - 1).map((p, i) => ({ phase: i + 2, dwell: p.dwellSeconds }));
    let due = 0;
    for (const step of steps) {
      due += step.dwell * (0.9 + 0.2 * this.chance());
      if (due >= answer.latencySeconds - 0.2) break;
      to(due);
      phase = step.phase;
      log.add("phase", { phase, by: "press" });
    }
    if (answer.wrongFirstSeconds !== null && answer.wrongFirstSeconds > gone) {
      to(answer.wrongFirstSeconds);
      log.add("response", { answer: "wrong", phase });
    }
    to(answer.latencySeconds);
    log.add("response", { answer: answer.outcome === "miss" ? "wrong" : answer.outcome, phase });
    if (answer.outcome === "refused") return;
    const criterion = criterionOf(plan, rung);
    if (answer.outcome === "miss") {
      // A patient handler holds and soon asks anew; a hurried one lets go of a wrong answer.
      log.wait(this.lag(0.8));
      if (this.chance() < handlerLagSeconds) log.add("release");
      else this.askAgainSoon = true;
      return;
    }
    if (criterion.stay_s !== undefined) log.wait(answer.outcome === "met" ? criterion.stay_s : criterion.stay_s * this.chance() * 0.8);
    if (answer.outcome === "met" && criterion.stay_s !== undefined) log.add("criterion");
    if (answer.outcome === "try" && criterion.stay_s !== undefined) log.add("stay", { ended_by: "left" });
    const release = this.lag(handlerLagSeconds);
    const mark = marks && answer.outcome === "met" ? this.lag(handlerLagSeconds * 0.8) : null;
    if (mark !== null && mark < release) {
      log.wait(mark);
      log.add("mark");
      log.wait(release - mark);
      log.add("release");
    } else {
      log.wait(release);
      log.add("release");
      if (mark !== null) {
        log.wait(mark - release);
        log.add("mark");
      }
    }
    this.afterwards(answer);
  }

  private afterwards(answer: SimulatedAnswer): void {
    const { plan, rung } = this.script;
    const working = plan.strands.find((s) => s.id === plan.workingStrandId);
    if (answer.outcome === "met" && plan.method !== "pressure-release") {
      this.log.wait(this.lag(1.6));
      this.log.add("feed", { pieces: this.chance() < 0.12 ? 2 : 1, where: "at the shoulder" });
    }
    const target = working === undefined ? undefined : plan.rungs[rung - 1]?.values[working.id];
    if (working !== undefined && working.key !== "stay" && typeof target === "number" && answer.outcome === "met") {
      this.log.wait(0.7);
      this.log.add("measure", { strand: working.key, value: target + (this.chance() < 0.2 ? 1 : 0), unit: working.unit });
    }
    const grade = this.gradeOf(answer);
    if (grade !== null) {
      this.log.wait(0.6);
      this.log.add("measure", { strand: "ease", value: grade, unit: "grade" });
    }
  }

  /** What the recorder's row of calm is told of a met answer; null where the rung has none. */
  private gradeOf({ outcome, ease }: SimulatedAnswer): number | null {
    const asked = outcome === "met" ? calmAsked(this.script.plan, this.script.rung) : null;
    if (asked === null) return null;
    // Who taps an answer as met where the rung has grades saw it unsettled at the most.
    return asked === "soft" ? (ease >= SOFT_GRADE ? SOFT_GRADE : NOT_SOFT_GRADE) : Math.max(ease, NOT_SOFT_GRADE);
  }

  private tally(answer: SimulatedAnswer): void {
    const { plan } = this.script;
    this.log.wait(Math.min(answer.latencySeconds, plan.maximumSeconds));
    const met = answer.outcome === "met";
    const food = plan.method !== "pressure-release";
    this.log.add("trial", {
      outcome: answer.outcome,
      phase: answer.phase,
      logged: "tally",
      ...(met ? { reinforced: 1, released: plan.method === "marker-food" ? 0 : 1, marked: food ? 1 : 0, reinforcers: food ? 1 : 0 } : {}),
    });
    const grade = this.gradeOf(answer);
    if (grade === null) return;
    this.log.wait(0.6);
    this.log.add("measure", { strand: "ease", value: grade, unit: "grade" });
  }
}
