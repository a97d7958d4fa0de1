import { type Chance, drawNormal, pick, seededChance } from "@/core/chance";
import { SimulatedHorse } from "@/core/learner";
import { type EvidenceTrial, evidenceOfSession, reduceSession } from "@/core/record";
import type { SessionEvent } from "@/core/schemas";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { allowanceOn } from "@/core/welfare";
import { nextStart, theWord, wordInputOf } from "@/core/word";
import { lookAfter, lookBefore } from "./around";
import { drawUuid, EventLog } from "./event-log";
import { BlockPlayer } from "./session-script";
import { DEMO_PEOPLE, DEMO_PLACES } from "./yard-places";
import type { DemoHorse } from "./yard-plan";

/** A generated session, ready to be stored. */
export interface DemoSession {
  readonly id: string;
  readonly startRung: number;
  readonly startWallMs: number;
  readonly events: readonly SessionEvent[];
}

const WEEKS = 13;
/** The sample horses have worked under no restriction so far. */
const NO_LIMITS = allowanceOn([], "2026-01-01", null);
const NOTES_BETTER = [
  "Softer from the first ask.",
  "Waited before answering, then answered.",
  "Came back to it by himself after the break.",
  "The last three were the best three.",
  "Less guessing.",
];
const NOTES_NEXT = [
  "Begin on the weaker side.",
  "One block shorter.",
  "Same again in the other pen.",
  "Hold the dwell; I hurried it.",
  "Try it before feeding.",
];

/** Days, from the oldest, on which a horse is worked: about `perWeek` a week, with a gap in the middle. */
function workingDays(chance: Chance, perWeek: number): number[] {
  const days: number[] = [];
  const gap = 35 + Math.floor(chance() * 12);
  for (let day = 0; day < WEEKS * 7; day++) {
    if (day >= gap && day < gap + 6) continue;
    if (chance() < perWeek / 7) days.push(day);
  }
  return days;
}

/** The one side a rung asks for, or null where either will do. */
function sideAsked(plan: DemoHorse["plan"], rung: number): "L" | "R" | null {
  const strand = plan.strands.find((s) => s.key === "side");
  const asked = strand === undefined ? undefined : plan.rungs[rung - 1]?.values[strand.id];
  return asked === "left" ? "L" : asked === "right" ? "R" : null;
}

interface DayContext {
  readonly demo: DemoHorse;
  readonly ladderId: string;
  readonly horse: SimulatedHorse;
  readonly chance: Chance;
  readonly evidence: EvidenceTrial[];
  /** The handler gets quicker over the weeks. */
  readonly handlerLagSeconds: number;
  readonly whereChance: Chance;
  readonly aroundChance: Chance;
}

/** Plays one session: the trainer follows the word, more or less. */
function playSession(context: DayContext, id: string, startWallMs: number): DemoSession {
  const { demo, ladderId, horse, chance, evidence } = context;
  const { plan } = demo;
  const log = new EventLog(id, `demo-${demo.handler + 1}`, startWallMs, chance);
  const start = nextStart({
    plan,
    ladder: ladderId,
    version: 1,
    trials: evidence,
    nowWallMs: startWallMs,
  });
  let rung = start.rung;
  log.add("session.start", {
    horse: demo.horse.name,
    handler: DEMO_PEOPLE[demo.handler]?.name ?? "",
    place: DEMO_PLACES[demo.place]?.name ?? "",
    method: plan.method,
  });
  lookBefore(log, context.aroundChance, startWallMs, plan.method === "pressure-release" ? null : 40);
  log.wait(20);
  let side: "L" | "R" = demo.temper.weakSide;
  const blocks = 3 + Math.floor(chance() * 3);
  let lastWord = "";
  for (let number = 1; number <= blocks; number++) {
    horse.goToRung(rung);
    side = sideAsked(plan, rung) ?? side;
    const player = new BlockPlayer(horse, log, chance, {
      plan,
      ladderId,
      version: 1,
      behaviour: demo.behaviour.name,
      number,
      rung,
      side,
      kind: "work",
      way: demo.way,
      handlerLagSeconds: context.handlerLagSeconds,
      zoneWaits: demo.zoneWaits,
      leaves: demo.leaves,
      whereChance: context.whereChance,
    });
    player.start();
    const trials = 5 + Math.floor(chance() * 5);
    let finish = false;
    for (let n = 0; n < trials; n++) {
      player.trial();
      const record = reduceSession(log.events);
      const input = wordInputOf({
        session: id,
        record,
        nowMs: record.lastMs,
        plan,
        ladder: ladderId,
        version: 1,
        handler: null,
        earlier: evidence,
        allowance: NO_LIMITS,
        restingBreaths: null,
      });
      if (input === null) break;
      const advice = theWord(input);
      if (advice.word !== lastWord) {
        log.add("word", { word: advice.word, why: advice.why, reason: advice.reason, numbers: { ...advice.numbers }, taken: false });
        lastWord = advice.word;
      }
      // A single refusal at the full ask is mostly asked once more; the trainer follows the word, more or less.
      const once = advice.word === "Ease" && advice.numbers.phase !== undefined && context.aroundChance() < 0.8;
      const taken = (["Raise", "Ease", "Rest", "Change side"].includes(advice.word) && !once) || (advice.word === "Finish" && number > 2);
      if (taken) {
        log.add("word", { word: advice.word, why: advice.why, reason: advice.reason, numbers: { ...advice.numbers }, taken: true });
        if (advice.word === "Raise") rung = Math.min(plan.rungs.length, rung + 1);
        if (advice.word === "Ease") rung = Math.max(1, rung - 1);
        if (advice.word === "Finish") finish = true;
        lastWord = "";
        break;
      }
    }
    player.end();
    if (finish) break;
    if (number < blocks && (number === 2 || number === 4)) {
      log.add("break.start", { reason: "rest" });
      log.wait(60 + chance() * 90);
      log.add("break.end");
    }
    side = side === "L" ? "R" : "L";
  }
  log.add("session.end");
  log.wait(30);
  lookAfter(log, context.aroundChance, demo.horse.resting_breaths_per_min ?? 11, null);
  if (chance() < 0.7) {
    log.add("note", { text: pick(chance, NOTES_BETTER), about: "better" });
    log.add("note", { text: pick(chance, NOTES_NEXT), about: "next" });
  }
  evidence.push(...evidenceOfSession(id, reduceSession(log.events), null));
  return { id, startRung: start.rung, startWallMs, events: log.events };
}

/**
 * Three months of sessions of one horse, ending on the day before `endWallMs`.
 * The same seed and end give the same sessions.
 */
export function playHorse(demo: DemoHorse, ladderId: string, endWallMs: number, seed: number): DemoSession[] {
  const chance = seededChance(seed);
  const whereChance = seededChance(seed + 7000);
  const aroundChance = seededChance(seed + 8000);
  const horse = new SimulatedHorse(demo.temper, chance);
  const midnight = Math.floor(endWallMs / MILLISECONDS_PER_DAY) * MILLISECONDS_PER_DAY;
  const firstDay = midnight - WEEKS * 7 * MILLISECONDS_PER_DAY;
  const evidence: EvidenceTrial[] = [];
  const sessions: DemoSession[] = [];
  let before: number | null = null;
  for (const day of workingDays(chance, demo.perWeek)) {
    if (before !== null) horse.rest(day - before);
    before = day;
    const hour = 8 + drawNormal(chance, 4, 2.5);
    const startWallMs = Math.round(firstDay + day * MILLISECONDS_PER_DAY + Math.min(17, Math.max(7, hour)) * 3_600_000);
    const handlerLagSeconds = 0.62 - 0.25 * (day / (WEEKS * 7));
    sessions.push(
      playSession({ demo, ladderId, horse, chance, evidence, handlerLagSeconds, whereChance, aroundChance }, drawUuid(chance), startWallMs),
    );
  }
  return sessions;
}
