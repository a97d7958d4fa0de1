import { behaviourFromTemplate, planFromTemplate } from "@/core/behaviour";
import { type Chance, drawNormal } from "@/core/chance";
import { criterionOf, type LadderPlan, type Rope, setRung, stepValue, thinnedSchedules } from "@/core/ladder";
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
      side: "L",
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
    log.wait(5);
    log.add("session.end");
    return { id, startRung: FOLLOWING_RUNG, startWallMs, events: log.events };
  });
}

/** The first ladder after three months: the stay is cut thinner where it stood still. */
export function thinnerStay(plan: LadderPlan, stallsAt: number): LadderPlan {
  const stay = plan.strands.find(({ key }) => key === "stay");
  const at = plan.rungs[stallsAt - 1];
  if (stay === undefined || at === undefined) return plan;
  const between: Rope = { strands: plan.strands, rungs: [...plan.rungs.slice(0, stallsAt - 1), at, ...plan.rungs.slice(stallsAt - 1)] };
  return { ...plan, ...stepValue(between, stallsAt, stay.id, -1) };
}

/** Both of its behaviours as one. */
export const demoChain = (standing: string, plate: string, rungs: number): ChainInput => ({
  name: "On the plate and waits",
  direction: "backward",
  links: [
    { ladder: plate, rung: Math.min(4, rungs) },
    { ladder: standing, rung: FOLLOWING_RUNG },
  ],
});
