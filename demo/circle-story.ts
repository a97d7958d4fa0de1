import { behaviourFromTemplate, planFromTemplate } from "@/core/behaviour";
import type { Chance } from "@/core/chance";
import { aidPhases, type CirclePlan, type CircleSetup, type RampStep, rampSteps, startingPlan, USUAL_SETUP } from "@/core/circle";
import { addDays, type Day } from "@/core/day";
import { planToLog } from "@/core/events/circle-log";
import { criterionOf, type LadderPlan } from "@/core/ladder";
import type { BehaviourInput, EventType, SessionEvent } from "@/core/schemas";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { HEART_STRAND } from "@/core/welfare";
import { templateOf } from "@/library";
import { drawUuid, EventLog } from "./event-log";

/** A session on the circle of the demo. */
export interface DemoCircleSession {
  readonly id: string;
  readonly startWallMs: number;
  readonly plan: CirclePlan;
  readonly startRung: number;
  readonly events: readonly SessionEvent[];
}

const RAMP = {
  start: { walk: 8, trot: 2, canter: 0, obstacles: false },
  goal: { walk: 5, trot: 8, canter: 2, obstacles: true },
  sessionsAWeek: 3,
  radiusMetres: 10,
} as const;

/** Days before the end on which it was worked on the circle, and how often the same step was repeated. */
const DAYS = [30, 28, 26, 23, 21, 18, 16, 14, 11, 9, 4] as const;
/** This one was poor: the step is repeated. */
const POOR = 4;

/** How the demo's circle horse is set up: a ramp that began a month ago, both ways, the left a little stiffer. */
export const demoCircleSetup = (today: Day): CircleSetup => ({
  ...USUAL_SETUP,
  stiffer: "L",
  ramp: { ...RAMP, since: addDays(today, -31) },
});

const STEPS = rampSteps({
  start: RAMP.start,
  goal: RAMP.goal,
  sessionsAWeek: RAMP.sessionsAWeek,
  ways: "both",
  caps: { sessionMinutes: 30, weekMinutes: null, weekVisits: null, canter: true },
});

/** The ladder its transitions to walk are asks of. */
export function circleLadder(): { readonly behaviour: BehaviourInput; readonly plan: LadderPlan } {
  const template = templateOf("walk-at-end");
  if (template === undefined) throw new Error("the library has no walk at the end");
  return { behaviour: behaviourFromTemplate(template), plan: planFromTemplate(template, "pressure-release") };
}

/** Sessions on one rung of it before the next is begun. */
const SESSIONS_A_RUNG = 4;

const planOf = (step: RampStep): CirclePlan => ({
  form: "circle",
  radiusMetres: RAMP.radiusMetres,
  radiusBy: "line",
  segments: startingPlan("both", "R", step),
  transitions: { by: "will", every: null, to: ASKED_GAIT },
  obstacles: step.obstacles ? ["a pole on the circle"] : [],
  ledFirst: step.obstacles,
  ways: "both",
  kit: null,
  kitStage: null,
  lines: null,
});

/** The gait whose transitions are asks of its ladder. */
const ASKED_GAIT = "walk";

/** Steady speeds of this horse, in m/s: what its tapped laps come to. */
const SPEED: Readonly<Record<string, number>> = { walk: 1.55, trot: 3.15 };

/** One session: the plan's segments, transitions that grow lighter, laps, what it does wrong, and the way down. */
function played(
  id: string,
  step: RampStep,
  index: number,
  startWallMs: number,
  recorder: string,
  who: { horse: string; handler: string; place: string; ladder: string },
  chance: Chance,
): DemoCircleSession {
  const plan = planOf(step);
  const ladder = circleLadder();
  const startRung = 1 + Math.floor(index / SESSIONS_A_RUNG);
  const phases = aidPhases(ladder.plan.phases);
  const happened: { readonly at: number; readonly type: EventType; readonly payload: object }[] = [];
  const put = (at: number, type: EventType, payload: object = {}) => happened.push({ at, type, payload });
  const poor = index === POOR;
  let at = 0;
  for (const { gait, side, minutes } of plan.segments) {
    const asked = at === 0 ? 0.4 : at + chance() * 1.5;
    // The voice is enough more and more often.
    const asks = chance() < 0.25 + 0.06 * index ? 1 : 2;
    let [phase, last] = [1, asked];
    for (let n = 0; n < asks; n++) {
      const again = n * (2.5 + chance() * 2);
      const aid = n === 0 ? "voice" : chance() < 0.7 ? "whip" : "smaller";
      last = asked + again;
      put(last, "aid", { aid, to: gait });
      phase = Math.max(phase, phases[aid]);
    }
    const came = Math.max(asked + asks * 2.2 + chance() * 2, last + 0.5);
    if (gait === ASKED_GAIT)
      put(came, "trial", { outcome: "met", side, phase, latency_s: Math.round((came - asked) * 10) / 10, logged: "timed" });
    put(came, "gait", { gait, direction: side === "L" ? "left" : "right", radiusMetres: RAMP.radiusMetres });
    const lap = (2 * Math.PI * RAMP.radiusMetres) / (SPEED[gait] ?? 1.6);
    for (let tap = came + 8, n = 0; tap < at + minutes * 60 - 5 && n < 4; tap += lap * (0.97 + chance() * 0.06), n++) put(tap, "lap");
    const faults = Math.round(chance() * (2.4 - 0.12 * index) * (side === "L" ? 1.3 : 0.8));
    for (let n = 0; n < faults; n++)
      put(came + chance() * Math.max(1, minutes * 60 - 20), "signal", {
        name: ["falls in", "rushes", "quarters out"][Math.floor(chance() * 3)] ?? "falls in",
        class: "count",
        side,
      });
    if (gait === "walk" && chance() < 0.5) put(came + 20, "signal", { name: "stretches down", class: "count", side });
    at += minutes * 60;
    // The poor one was broken off in its second trot.
    if (poor && at > 600) break;
  }
  const log = new EventLog(id, recorder, startWallMs, chance);
  log.add("preflight", { gear: { helmet: true, gloves: true, boots: true }, checks: [], open: [], sky: "sun" });
  log.add("session.start", { horse: who.horse, handler: who.handler, place: who.place, method: "pressure-release" });
  log.add("block.start", {
    block: 1,
    behaviour: ladder.behaviour.name,
    ladder: who.ladder,
    version: 1,
    rung: startRung,
    criterion: { ...criterionOf(ladder.plan, startRung) },
    side: "",
    kind: "work",
  });
  log.add("circle.start", { plan: planToLog(plan), overrides: [] });
  let clock = 0;
  for (const { at: seconds, type, payload } of happened.filter((one) => one.at < at).sort((a, b) => a.at - b.at)) {
    log.wait(seconds - clock);
    clock = seconds;
    log.add(type, payload as never);
  }
  log.wait(at - clock + 2);
  log.add("block.end");
  log.add("session.end");
  log.add("cool", { did: "starts" });
  // Breathing: above resting by less, and down sooner, from week to week; none left open but the poor one.
  const [above, half] = [26 - index, 3.6 - 0.17 * index];
  for (const minutes of [0.5, 3, 6, 10, 13.5]) {
    log.wait(minutes === 0.5 ? 30 : 170);
    const rate = 11 + above * 2 ** (-minutes / half);
    log.add("breath", { taps_ms: Array.from({ length: 9 }, (_, n) => Math.round(((n * 60_000) / rate) * (1 + (chance() - 0.5) * 0.02))) });
  }
  // After a canter or ten minutes of trot the heart is asked for too.
  log.add("measure", { strand: HEART_STRAND, value: 50 + Math.round(chance() * 6), unit: "a minute" });
  log.add("cool", poor ? { did: "left", reason: "rain came on; walked in the barn" } : { did: "cooled", bright: true });
  log.wait(3);
  log.add("circle.rated", { easy: !poor });
  return { id, startWallMs, plan, startRung, events: log.events };
}

/**
 * The month of a horse that gets fit on the circle, by its ramp.
 * @param busyMs when it was worked on a ladder that circles.
 */
export function circleStory(
  who: { horse: string; handler: string; place: string; recorder: string; ladder: string },
  endWallMs: number,
  chance: Chance,
  busyMs: readonly number[] = [],
): DemoCircleSession[] {
  const midnight = Math.floor(endWallMs / MILLISECONDS_PER_DAY) * MILLISECONDS_PER_DAY;
  // Its other work circles too, and a cap is one of the day: the line is for days without it.
  const daysBack = (ms: number) =>
    Math.round((midnight - Math.floor(ms / MILLISECONDS_PER_DAY) * MILLISECONDS_PER_DAY) / MILLISECONDS_PER_DAY);
  const taken = new Set(busyMs.map(daysBack));
  const free = DAYS.map((wanted) => {
    const day = [0, -1, 1, -2, 2, 3, -3].map((by) => wanted + by).find((one) => one > 0 && !taken.has(one)) ?? wanted;
    taken.add(day);
    return day;
  }).sort((a, b) => b - a);
  let step = 0;
  return free.flatMap((daysAgo, index) => {
    const now = STEPS[step];
    if (now === undefined) return [];
    const session = played(
      drawUuid(chance),
      now,
      index,
      midnight - daysAgo * MILLISECONDS_PER_DAY + Math.round((16 + chance()) * 3_600_000),
      who.recorder,
      who,
      chance,
    );
    if (index !== POOR) step++;
    return [session];
  });
}
