import { nextStart } from "@/core/advice";
import { seededChance } from "@/core/chance";
import type { LadderPlan } from "@/core/ladder";
import { SimulatedHorse } from "@/core/learner";
import { type EvidenceTrial, evidenceOfSession, reduceSession } from "@/core/record";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { drawUuid, EventLog } from "./event-log";
import { HANDLED } from "./horse";
import { playBlocks } from "./trainer";

/** How a simulated horse got up a ladder. */
export interface Climb {
  readonly reachedTop: boolean;
  readonly rungsWorked: readonly number[];
  /** Days on which it was worked, a session each. */
  readonly days: number;
  readonly asks: number;
  /** Asks on each side; all on the left where no rung asks for a side. */
  readonly asksBySide: { readonly left: number; readonly right: number };
}

const FIRST_DAY = Date.UTC(2026, 2, 2, 9);
const BLOCKS = 4;

/**
 * Lets the horse of the demo work a ladder from its first rung with a trainer
 * who takes every word, a session a day, each started where the core says: its
 * events go through the same derivation as a real horse's, criterion, schedule and all.
 * @param weakSide the side that begins lower and learns slower.
 */
export function climb(plan: LadderPlan, seed: number, weakSide: "L" | "R" = "L", mostDays = 200): Climb {
  const chance = seededChance(seed);
  const trainerChance = seededChance(seed + 1);
  const horse = new SimulatedHorse({ ...HANDLED, tension: 0, weakSide }, chance);
  let evidence: EvidenceTrial[] = [];
  const worked = new Set<number>();
  const result = (reachedTop: boolean, days: number): Climb => ({
    reachedTop,
    rungsWorked: [...worked].sort((a, b) => a - b),
    days,
    asks: evidence.length,
    asksBySide: {
      left: evidence.filter(({ side }) => side !== "R").length,
      right: evidence.filter(({ side }) => side === "R").length,
    },
  });
  for (let day = 0; day < mostDays; day++) {
    const startWallMs = FIRST_DAY + day * MILLISECONDS_PER_DAY;
    const said = nextStart({ plan, ladder: "l", version: 1, trials: evidence, nowWallMs: startWallMs });
    if (said.headline.startsWith("Keep")) return result(true, day);
    // This trainer puts no rung in between, and goes on where that is asked for.
    const split = /^Add a step below rung (\d+)$/.exec(said.headline)?.[1];
    horse.rest(1);
    const id = drawUuid(chance);
    const log = new EventLog(id, "climb", startWallMs, chance);
    log.add("session.start", { horse: "x", handler: "y", place: "z", method: plan.method });
    playBlocks({
      log,
      horse,
      chance,
      trainerChance,
      plan,
      ladderId: "l",
      version: 1,
      behaviour: "b",
      session: id,
      handler: null,
      earlier: evidence,
      rung: split === undefined ? said.rung : Number(split),
      beginSide: weakSide === "L" ? "R" : "L",
      moreOn: null,
      blocks: BLOCKS,
      takes: 1,
      insists: 0,
      reach: () => 1,
      script: { way: "timed", handlerLagSeconds: 0.3, zoneWaits: { here: 1 }, leaves: null, whereChance: seededChance(seed + day) },
    });
    log.add("session.end");
    const trials = evidenceOfSession(id, reduceSession(log.events), null);
    for (const { rung } of trials) worked.add(rung);
    evidence = [...evidence, ...trials];
  }
  return result(false, mostDays);
}
