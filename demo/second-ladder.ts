import { behaviourFromTemplate, planFromTemplate } from "@/core/behaviour";
import { type Chance, drawNormal } from "@/core/chance";
import { criterionOf, type LadderPlan, setRung, thinnedSchedules } from "@/core/ladder";
import type { BehaviourInput, ChainInput } from "@/core/schemas";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { templateOf } from "@/library";
import { drawUuid, EventLog } from "./event-log";
import type { DemoSession } from "./yard";

/** The rung of the second ladder whose bar follows the horse. */
const FOLLOWING_RUNG = 3;
const DAYS_AGO = [9, 6, 4, 2];
const TRIALS_A_DAY = 7;

/** A second ladder of the first horse, from the library: a bar that follows the horse, rewards that thin out. */
export function secondLadder(): { behaviour: BehaviourInput; plan: LadderPlan } {
  const template = templateOf("stand-wait");
  if (template === undefined) throw new Error("the library has no stand-wait");
  const begun = planFromTemplate(template, "combined");
  const thinned = thinnedSchedules(begun.rungs.length, 3);
  const rungs = begun.rungs.map((rung, i) => ({ ...rung, schedule: thinned[i] }));
  const rope = setRung({ strands: begun.strands, rungs }, FOLLOWING_RUNG, { percentile: { lookBack: 10, wantedShare: 0.6 } });
  return {
    behaviour: behaviourFromTemplate(template),
    plan: {
      ...begun,
      ...rope,
      feeding: { reinforcer: "food", pieceGrams: 4, dayLimitGrams: 300, where: "under the chin", politeSeconds: 1 },
    },
  };
}

/** Short sessions on its rung that follows the horse: stays that slowly grow longer. */
export function secondLadderSessions(
  who: { horse: string; handler: string; place: string; recorder: string },
  ladderId: string,
  plan: LadderPlan,
  behaviour: string,
  endWallMs: number,
  chance: Chance,
  chain: string,
): DemoSession[] {
  const midnight = Math.floor(endWallMs / MILLISECONDS_PER_DAY) * MILLISECONDS_PER_DAY;
  const values: number[] = [];
  return DAYS_AGO.map((daysAgo, day) => {
    const id = drawUuid(chance);
    const startWallMs = midnight - daysAgo * MILLISECONDS_PER_DAY + 18 * 3_600_000;
    const log = new EventLog(id, who.recorder, startWallMs, chance);
    const { horse, handler, place } = who;
    log.add("session.start", { horse, handler, place, method: plan.method });
    log.wait(15);
    log.add("block.start", {
      block: 1,
      behaviour,
      ladder: ladderId,
      version: 1,
      rung: FOLLOWING_RUNG,
      criterion: { ...criterionOf(plan, FOLLOWING_RUNG, { seed: day + 1, earlierValues: values }) },
      side: "",
      kind: "work",
      planned: TRIALS_A_DAY,
    });
    for (let n = 0; n < TRIALS_A_DAY; n++) {
      const stayed = Math.max(0.5, Math.round(2 * drawNormal(chance, 2.2 + 0.6 * day, 0.9)) / 2);
      log.wait(stayed + 2);
      log.add("trial", {
        outcome: "met",
        phase: chance() < 0.7 ? 1 : 2,
        logged: "tally",
        released: 1,
        reinforced: 1,
        marked: 1,
        reinforcers: 1,
      });
      log.wait(1);
      log.add("measure", { strand: "stay", value: stayed, unit: "s" });
      values.push(stayed);
      log.wait(6 + 8 * chance());
    }
    log.add("block.end");
    log.wait(20);
    runWhole(log, chain, day, chance);
    log.wait(5);
    log.add("session.end");
    return { id, startRung: FOLLOWING_RUNG, startWallMs, handler: 0, version: 1, events: log.events };
  });
}

/** The whole chain once, after the work: the later days he gets through to its end. */
function runWhole(log: EventLog, chain: string, day: number, chance: Chance): void {
  log.add("run.start", { chain, name: CHAIN_NAME, direction: "backward", links: CHAIN_LINKS, from: 1 });
  log.wait(6 + 6 * chance());
  log.add("link", { link: 1 });
  log.wait(8 + 8 * chance());
  if (day >= 1) log.add("link", { link: 2 });
  else {
    log.add("run.end", { link: 2, reason: "walked off", did: "led back to the plate" });
    return;
  }
  log.wait(4);
  log.add("run.end");
}

const CHAIN_NAME = "On the plate and waits";
const CHAIN_LINKS = ["Stands on the weighing plate", "Stands and waits"];

/** Both of its behaviours as one. */
export const demoChain = (standing: string, plate: string, rungs: number): ChainInput => ({
  name: CHAIN_NAME,
  direction: "backward",
  links: [
    { ladder: plate, rung: Math.min(4, rungs) },
    { ladder: standing, rung: FOLLOWING_RUNG },
  ],
});
