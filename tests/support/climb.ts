import { seededChance } from "@/core/chance";
import { asksBothSides, type LadderPlan } from "@/core/ladder";
import { SimulatedHorse } from "@/core/learner";
import { type EvidenceTrial, evidenceOfSession, reduceSession } from "@/core/record";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { nextStart } from "@/core/word";
import { drawUuid, EventLog } from "@/demo/event-log";
import { BlockPlayer } from "@/demo/session-script";
import { DEMO_HORSES } from "@/demo/yard-plan";

/** How a simulated horse got up a ladder. */
export interface Climb {
  readonly reachedTop: boolean;
  readonly rungsWorked: readonly number[];
  readonly sessions: number;
  readonly trials: number;
}

const FIRST_DAY = Date.UTC(2026, 2, 2, 9);
const BLOCKS = 4;

/**
 * Lets the learner that makes the demo work a ladder from its first rung, a
 * session a day, each started where the core says: its events go through the
 * same derivation as a real horse's, criterion, schedule and all.
 */
export function climb(plan: LadderPlan, seed: number, mostSessions = 200): Climb {
  const temper = DEMO_HORSES[0]?.temper;
  if (temper === undefined) throw new Error("the demo has no horse");
  const chance = seededChance(seed);
  const horse = new SimulatedHorse({ ...temper, learning: 0.05, tension: 0, stallsAtRung: null }, chance);
  const evidence: EvidenceTrial[] = [];
  const worked = new Set<number>();
  for (let day = 0; day < mostSessions; day++) {
    const startWallMs = FIRST_DAY + day * MILLISECONDS_PER_DAY;
    const said = nextStart({ plan, ladder: "l", version: 1, trials: evidence, nowWallMs: startWallMs });
    // This trainer puts no rung in between, and goes on where that is asked for.
    const split = /^Split rung (\d+)$/.exec(said.headline)?.[1];
    const start = { ...said, rung: split === undefined ? said.rung : Number(split) };
    if (start.headline.startsWith("Keep"))
      return { reachedTop: true, rungsWorked: [...worked].sort((a, b) => a - b), sessions: day, trials: evidence.length };
    worked.add(start.rung);
    horse.rest(1);
    horse.goToRung(start.rung);
    const id = drawUuid(chance);
    const log = new EventLog(id, "climb", startWallMs, chance);
    log.add("session.start", { horse: "x", handler: "y", place: "z", method: plan.method });
    for (let number = 1; number <= BLOCKS; number++) {
      const side = asksBothSides(plan, start.rung) && number % 2 === 0 ? "R" : "L";
      const player = new BlockPlayer(horse, log, chance, {
        plan,
        ladderId: "l",
        version: 1,
        behaviour: "b",
        number,
        rung: start.rung,
        side,
        kind: "work",
        way: "timed",
        handlerLagSeconds: 0.3,
        zoneWaits: { here: 1 },
        leaves: null,
        whereChance: seededChance(seed + day),
      });
      player.start();
      for (let n = 0; n < plan.plannedRepetitions; n++) player.trial();
      player.end();
    }
    log.add("session.end");
    evidence.push(...evidenceOfSession(id, reduceSession(log.events), null));
  }
  return { reachedTop: false, rungsWorked: [...worked].sort((a, b) => a - b), sessions: mostSessions, trials: evidence.length };
}
