import type { Reinforcer } from "../events/reinforcers";
import type { Method } from "../ladder/ladder";
import { earnsReinforcer, type PlayedSchedule } from "../ladder/schedule";
import { piecesUsed } from "../record/food";
import type { SessionRecord } from "../record/reduce";

export type Step = "ask" | "answer" | "release" | "mark" | "wait" | "food" | "instead";

/** What the coach says before the ask and after it. */
export interface ReinforcementCoach {
  /** Whether the next met answer earns its reinforcer. */
  readonly nextEarns: boolean;
  readonly sentence: string;
  /** Pieces left in the pouch; null where it was not counted. */
  readonly piecesLeft: number | null;
  readonly steps: readonly Step[];
  /** The step that comes next, or null where the last answer has had all of its. */
  readonly next: Step | null;
  /** Seconds of the polite wait still to go; 0 where none is due. */
  readonly waitSeconds: number;
}

/** What the coach is told of the plan. */
export interface CoachPlan {
  readonly method: Method;
  readonly schedule: PlayedSchedule;
  readonly reinforcer: Reinforcer;
  readonly politeSeconds: number;
}

/**
 * The order of steps of a method. The wait is left out where the plan asks for none.
 * @example orderOfSteps({ … }, false) // ["answer", "release"]
 */
export function orderOfSteps({ method, reinforcer, politeSeconds }: Omit<CoachPlan, "schedule">, earns: boolean): Step[] {
  const given: Step[] = reinforcer === "food" ? [...(politeSeconds > 0 ? (["wait"] as const) : []), "food"] : ["instead"];
  if (method === "pressure-release") return ["answer", "release"];
  const first: Step[] = method === "combined" ? ["answer", "release"] : ["answer"];
  return earns ? [...first, "mark", ...given] : first;
}

/** Pieces brought into the session so far, those of every filling together; null where nobody counted. @example pouchOf(record) // 10 */
export function pouchOf({ facts }: Pick<SessionRecord, "facts">): number | null {
  return facts.filter((fact) => fact.type === "preflight").findLast(({ payload }) => payload.pouch != null)?.payload.pouch ?? null;
}

/**
 * The coach for the present moment: whether the next met answer earns its
 * reinforcer by the rung's schedule, what is left in the pouch, and which
 * step of the method's order comes next.
 * @param nowMs the present, in milliseconds from the start of work.
 * @example reinforcementCoach(record, plan, 60000) // { nextEarns: true, piecesLeft: 9, next: null, … }
 */
export function reinforcementCoach(record: SessionRecord, plan: CoachPlan, nowMs: number): ReinforcementCoach {
  const index = record.blocks.length - 1;
  const own = record.trials.filter(({ blockIndex }) => blockIndex === index);
  const met = own.filter(({ outcome }) => outcome === "met").length;
  const nextEarns = earnsReinforcer(plan.schedule, met + 1);
  const pouch = pouchOf(record);
  const last = own.at(-1);
  const lastEarned = last !== undefined && last.outcome === "met" && earnsReinforcer(plan.schedule, met);
  const lastTimed = last?.logged === "timed" && last.tapped === "met" && record.openAsk === null;
  const steps = orderOfSteps(plan, lastTimed ? lastEarned : nextEarns);
  let next: Step | null = record.openAsk === null ? null : record.openAsk.answered ? "release" : "answer";
  let waitSeconds = 0;
  if (record.openAsk === null && lastTimed && lastEarned) {
    const given = plan.reinforcer === "food" ? last.feedMs !== null : last.reinforcerKinds.length > 0;
    if (steps.includes("mark") && last.markMs === null) next = "mark";
    else if (!given && steps.length > 2) {
      const since = last.markMs === null ? null : (nowMs - last.markMs) / 1000;
      waitSeconds = plan.reinforcer !== "food" || since === null ? 0 : Math.max(0, plan.politeSeconds - since);
      next = waitSeconds > 0 ? "wait" : plan.reinforcer === "food" ? "food" : "instead";
    }
  }
  const sentence =
    plan.schedule.kind === "every" ? "Each one earns it." : nextEarns ? "The next met one earns it." : "Not the next one: release only.";
  return {
    nextEarns,
    sentence,
    piecesLeft: pouch === null ? null : Math.max(0, pouch - piecesUsed(record)),
    steps,
    next,
    waitSeconds,
  };
}
