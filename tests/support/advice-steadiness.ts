import { adviceInputOf, adviceLogged, nextStart, theAdvice } from "@/core/advice";
import { seededChance } from "@/core/chance";
import { asksBothSides } from "@/core/ladder";
import { SimulatedHorse } from "@/core/learner";
import { type EvidenceTrial, evidenceOfSession, reduceSession } from "@/core/record";
import { allowanceOn } from "@/core/welfare";
import { drawUuid, EventLog } from "@/demo/event-log";
import { BlockPlayer } from "@/demo/session-script";
import { STUDY_HORSES } from "./study-horses";

/** How steady the word was over sessions of simulated horses. */
export interface Steadiness {
  readonly blocks: number;
  /** Blocks in which the word changed more than once. */
  readonly restless: number;
  readonly sessions: number;
  /** Sessions with at least one such block. */
  readonly restlessSessions: number;
  /** Words other than Stay that were said in a session after the same one had been left in an earlier block of it. */
  readonly repeated: number;
}

const NO_LIMITS = allowanceOn([], "2026-01-01", null);
const FIRST_DAY = Date.UTC(2026, 2, 2, 9);
const DAY = 86_400_000;

/**
 * Lets four horses work sessions with the word on the screen, logged as
 * the recorder logs it. The trainer takes each rest, another word as often as
 * they are willing to, and otherwise goes on with the block.
 * @param willing chance that a word is taken, from 0 to 1.
 * @param each told the words of each block, in the order they came.
 */
export function adviceSteadiness(
  seed: number,
  sessions: number,
  willing: number,
  each: (words: readonly string[]) => void = () => undefined,
  again: (word: string) => void = () => undefined,
): Steadiness {
  let blocks = 0;
  let restless = 0;
  let restlessSessions = 0;
  let repeated = 0;
  for (const [h, demo] of STUDY_HORSES.entries()) {
    const { plan, temper } = demo;
    const chance = seededChance(seed + 100 * h);
    const trainer = seededChance(seed + 100 * h + 7);
    const horse = new SimulatedHorse(temper, chance);
    const evidence: EvidenceTrial[] = [];
    for (let day = 0; day < sessions; day++) {
      const startWallMs = FIRST_DAY + day * DAY;
      let { rung } = nextStart({ plan, ladder: "l", version: 1, trials: evidence, nowWallMs: startWallMs });
      const id = drawUuid(chance);
      const log = new EventLog(id, "steady", startWallMs, chance);
      log.add("session.start", { horse: "x", handler: "y", place: "z", method: plan.method });
      horse.rest(1);
      let unrest = false;
      let over = false;
      const left = new Set<string>();
      for (let number = 1; number <= 5 && !over; number++) {
        horse.goToRung(rung);
        const side = asksBothSides(plan, rung) && number % 2 === 0 ? "R" : "L";
        const player = new BlockPlayer(horse, log, chance, {
          plan,
          ladderId: "l",
          version: 1,
          behaviour: "b",
          number,
          rung,
          side,
          kind: "work",
          way: "timed",
          handlerLagSeconds: 0.3,
          zoneWaits: { here: 1 },
          leaves: null,
          whereChance: seededChance(seed + day),
        });
        player.start();
        const words: string[] = [];
        let taken = false;
        for (let n = 0; n < 10 && !taken; n++) {
          player.trial();
          const record = reduceSession(log.events);
          const situation = {
            session: id,
            record,
            nowMs: record.lastMs,
            plan,
            ladder: "l",
            version: 1,
            handler: null,
            earlier: evidence,
            allowance: NO_LIMITS,
            restingBreaths: null,
          };
          const input = adviceInputOf(situation);
          if (input === null) break;
          const advice = theAdvice(input);
          // Start and Repeat are one: nothing new is said with the first ask.
          const said = advice.word === "Start" ? "Repeat" : advice.word;
          if (said === words.at(-1)) continue;
          if (advice.word === "Break") {
            // A rest that is taken is no change of mind: what stood before stands after it.
            log.add("word", adviceLogged(advice, true));
            log.add("break.start", { reason: "rest" });
            log.wait(120);
            log.add("break.end");
            continue;
          }
          words.push(said);
          if (left.has(advice.word)) {
            repeated++;
            again(`${advice.word} ${advice.why} ${JSON.stringify(advice.numbers)}`);
          }
          log.add("word", adviceLogged(advice, false));
          if (["Start", "Repeat", "Add a step"].includes(advice.word) || trainer() >= willing) continue;
          log.add("word", adviceLogged(advice, true));
          taken = true;
          if (advice.word === "Up" || advice.word === "Go back") rung = advice.rung ?? rung;
          if (advice.word === "Finish") over = true;
        }
        player.end();
        blocks++;
        each(words);
        const last = words.at(-1);
        if (last !== undefined && !["Start", "Repeat"].includes(last) && !taken) left.add(last);
        if (words.length > 2) {
          restless++;
          unrest = true;
        }
      }
      log.add("session.end");
      if (unrest) restlessSessions++;
      evidence.push(...evidenceOfSession(id, reduceSession(log.events), null));
    }
  }
  return { blocks, restless, sessions: sessions * STUDY_HORSES.length, restlessSessions, repeated };
}
