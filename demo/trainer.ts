import { type Advice, adviceInputOf, adviceLogged, theAdvice } from "@/core/advice";
import type { Chance } from "@/core/chance";
import { asksBothSides, type LadderPlan, sideAsked } from "@/core/ladder";
import type { SimulatedHorse } from "@/core/learner";
import { type EvidenceTrial, reduceSession } from "@/core/record";
import { allowanceOn } from "@/core/welfare";
import type { EventLog } from "./event-log";
import { BlockPlayer, type BlockScript } from "./session-script";

/** No sample horse has worked under a restriction so far. */
const NO_LIMITS = allowanceOn([], "2026-01-01", null);

/** What a session of the simulated trainer is about. */
export interface TrainerSession {
  readonly log: EventLog;
  readonly horse: SimulatedHorse;
  readonly chance: Chance;
  /** Chance of the trainer's own, so that what it does changes no answer of the horse. */
  readonly trainerChance: Chance;
  readonly plan: LadderPlan;
  readonly ladderId: string;
  readonly version: number;
  readonly behaviour: string;
  readonly session: string;
  readonly handler: string | null;
  /** Trials of earlier sessions, oldest first, as the present version counts them. */
  readonly earlier: readonly EvidenceTrial[];
  readonly rung: number;
  readonly beginSide: "L" | "R";
  /** The side that gets a block more, or null where both get the same. */
  readonly moreOn: "L" | "R" | null;
  readonly blocks: number;
  /** Chance that a word is taken. */
  readonly takes: number;
  /** For so many blocks no word is taken: the trainer means to stay on this rung. */
  readonly insists: number;
  /** Share of its chance the horse has left on a rung that is too far for it; 1 where it is not. */
  readonly reach: (rung: number) => number;
  readonly script: Omit<BlockScript, "plan" | "ladderId" | "version" | "behaviour" | "number" | "rung" | "side" | "kind">;
}

/** What a session came to, for its notes. */
export interface TrainerOutcome {
  readonly raised: boolean;
  readonly eased: boolean;
  readonly finished: Advice | null;
  readonly lastRung: number;
}

/** How much more an answer teaches on the side that is given more. */
const MORE_PATIENCE = 2.2;

const other = (side: "L" | "R") => (side === "L" ? ("R" as const) : ("L" as const));

/**
 * Works one session: blocks as planned, the word asked after every trial and
 * mostly taken. A raise begins the next block a rung up, an ease one down, a
 * rest pauses, a finish ends it; a refusal at the full ask is mostly asked once
 * more. What is said stands in the log, with whether it was taken.
 */
export function playBlocks(wish: TrainerSession): TrainerOutcome {
  const { log, horse, chance, trainerChance, plan, blocks } = wish;
  let rung = wish.rung;
  let side = wish.beginSide;
  let raised = false;
  let eased = false;
  let lastWord = "";
  for (let number = 1; number <= blocks; number++) {
    horse.goToRung(rung, wish.reach(rung));
    side = sideAsked(plan, rung) ?? side;
    const player = new BlockPlayer(horse, log, chance, {
      ...wish.script,
      // Where a side gets more, it gets smaller asks and more patience too.
      taught: (wish.script.taught ?? 1) * (side === wish.moreOn ? MORE_PATIENCE : 1),
      plan,
      ladderId: wish.ladderId,
      version: wish.version,
      behaviour: wish.behaviour,
      number,
      rung,
      side,
      kind: "work",
    });
    player.start();
    const adviceNow = (): Advice | null => {
      const record = reduceSession(log.events);
      const input = adviceInputOf({
        session: wish.session,
        record,
        nowMs: record.lastMs,
        plan,
        ladder: wish.ladderId,
        version: wish.version,
        handler: wish.handler,
        earlier: wish.earlier,
        allowance: NO_LIMITS,
        restingBreaths: null,
      });
      return input === null ? null : theAdvice(input);
    };
    // As the recorder does: on a new block the word that stands there is said, a moment after it began.
    log.wait(0.05);
    const atFirst = adviceNow();
    if (atFirst !== null) log.add("word", adviceLogged(atFirst, false));
    lastWord = atFirst === null ? "" : adviceLogged(atFirst, false).word;
    const trials = plan.plannedRepetitions + Math.floor(trainerChance() * 3) - 1;
    let to: Advice | null = null;
    for (let n = 0; n < trials && to === null; n++) {
      player.trial();
      const advice = adviceNow();
      if (advice === null) break;
      const { word } = adviceLogged(advice, false);
      const once = advice.word === "Go back" && advice.numbers.phase !== undefined && trainerChance() < 0.8;
      const wanted = !["Start", "Repeat", "Add a step"].includes(advice.word) && !once && number > wish.insists;
      // Told once, it is taken or left; left, it is not weighed again until another word comes.
      if (word !== lastWord && wanted && trainerChance() < wish.takes) to = advice;
      if (word !== lastWord || to !== null) log.add("word", adviceLogged(advice, to !== null));
      lastWord = word;
    }
    player.end();
    const word = to?.word;
    if (word === "Finish") return { raised, eased, finished: to, lastRung: rung };
    if (word === "Up") {
      rung = Math.min(plan.rungs.length, rung + 1);
      raised = true;
    }
    if (word === "Go back") {
      rung = to?.rung ?? Math.max(1, rung - 1);
      eased = true;
    }
    if (word !== undefined) lastWord = "";
    if (number < blocks && (word === "Break" || number === 3)) {
      log.add("break.start", { reason: "rest" });
      log.wait(60 + trainerChance() * 90);
      log.add("break.end");
    }
    // By turns, and the side that is to get more has two of three.
    if (asksBothSides(plan, rung))
      side = wish.moreOn === null || word === "Change side" || side !== wish.moreOn || number % 3 === 2 ? other(side) : side;
  }
  return { raised, eased, finished: null, lastRung: rung };
}
