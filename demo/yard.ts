import { nextStart } from "@/core/advice";
import { type Chance, drawNormal, pick, seededChance } from "@/core/chance";
import { type LadderPlan, unchangedRungs } from "@/core/ladder";
import { SimulatedHorse } from "@/core/learner";
import { carriedOver, type EvidenceTrial, evidenceOfSession, reduceSession } from "@/core/record";
import type { SessionEvent } from "@/core/schemas";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { lookAfter, lookBefore } from "./around";
import { drawUuid, EventLog } from "./event-log";
import type { DemoHorse, StoryNotes } from "./horse";
import { playBlocks } from "./trainer";
import { DEMO_PEOPLE, DEMO_PLACES } from "./yard-places";

/** A generated session, ready to be stored. */
export interface DemoSession {
  readonly id: string;
  readonly startRung: number;
  readonly startWallMs: number;
  readonly handler: number;
  /** Which version of the ladder it was worked on. */
  readonly version: number;
  readonly events: readonly SessionEvent[];
}

const DAYS = 91;

/** Days on which a horse is worked, from the first: about so many a week, none while it rests, never three days running. */
function workingDays(chance: Chance, { perWeek, rests }: DemoHorse["story"]): number[] {
  const days: number[] = [];
  for (let day = 0; day < DAYS; day++) {
    const resting = rests.some(([from, to]) => day >= from && day <= to);
    if (chance() < (perWeek / 7) * 1.12 && !resting && !(days.includes(day - 1) && days.includes(day - 2))) days.push(day);
  }
  return days;
}

/** Share of its chance a horse has left on a rung it was hurried to. */
const TOO_SOON = 0.5;

/** What the notes of a day may say. */
const notesOn = (notes: readonly StoryNotes[], day: number): StoryNotes | null => notes.findLast(({ from }) => from <= day) ?? null;

/** How much an answer teaches whose release comes so late: all of it within half a second, less and less after that. */
const taughtBy = (lagSeconds: number) => Math.min(1, Math.max(0.3, 1.5 - lagSeconds));

/**
 * Three months of sessions of one horse, ending on the day before `endWallMs`.
 * The same seed and end give the same sessions.
 */
export function playHorse(demo: DemoHorse, ladderId: string, endWallMs: number, seed: number): DemoSession[] {
  const { story } = demo;
  const chance = seededChance(seed);
  const trainerChance = seededChance(seed + 6000);
  const whereChance = seededChance(seed + 7000);
  const aroundChance = seededChance(seed + 8000);
  const horses = new Map<number, SimulatedHorse>();
  const horseWith = (handler: number) => {
    const there = horses.get(handler) ?? new SimulatedHorse(story.temperOf(handler), chance);
    horses.set(handler, there);
    return there;
  };
  const midnight = Math.floor(endWallMs / MILLISECONDS_PER_DAY) * MILLISECONDS_PER_DAY;
  const firstDay = midnight - DAYS * MILLISECONDS_PER_DAY;
  const sessions: DemoSession[] = [];
  const against = [...(story.against ?? [])];
  let plan: LadderPlan = demo.plan;
  let version = 1;
  let evidence: EvidenceTrial[] = [];
  let before: number | null = null;
  let splitSaid = 0;
  for (const [nth, day] of workingDays(chance, story).entries()) {
    const handler = story.handlerOf(nth);
    const horse = horseWith(handler);
    for (const one of horses.values()) if (before !== null) one.rest(day - before);
    before = day;
    const hour = Math.min(17, Math.max(7, 8 + drawNormal(chance, 4, 2.5)));
    const startWallMs = Math.round(firstDay + day * MILLISECONDS_PER_DAY + hour * 3_600_000);
    const handlerKey = `p${handler}`;
    const names = new Map(DEMO_PEOPLE.map(({ name }, i) => [`p${i}`, name]));
    const startOf = () =>
      nextStart({ plan, ladder: ladderId, version, trials: evidence, nowWallMs: startWallMs, handler: handlerKey, names });
    let start = startOf();
    const splitAt = /^Add a step below rung (\d+)$/.exec(start.headline)?.[1];
    if (splitAt !== undefined && version === 1 && story.split !== undefined && ++splitSaid > story.split.after) {
      evidence = carriedOver(evidence, 2, new Map([[1, unchangedRungs(plan, story.split.plan)]]));
      plan = story.split.plan;
      version = 2;
      start = startOf();
    }
    const wilful = against[0] !== undefined && against[0].day <= day ? against.shift() : undefined;
    // Told to split, one of these trainers does; the others go a rung back and come again.
    const told = splitAt === undefined ? start.rung : Math.max(1, Number(splitAt) - (story.split === undefined ? 1 : 0));
    const rung = wilful?.rung ?? told;
    // What is learned is kept by a block now and then.
    const keeps = start.headline.startsWith("Keep");
    const id = drawUuid(chance);
    const log = new EventLog(id, `demo-${handler + 1}`, startWallMs, chance);
    log.add("session.start", {
      horse: demo.horse.name,
      handler: DEMO_PEOPLE[handler]?.name ?? "",
      place: DEMO_PLACES[demo.place]?.name ?? "",
      method: plan.method,
    });
    lookBefore(log, aroundChance, startWallMs, plan.method === "pressure-release" ? null : 40);
    log.wait(20);
    const temper = story.temperOf(handler);
    const more = story.weakerMoreFrom !== undefined && day >= story.weakerMoreFrom ? temper.weakSide : null;
    const lagSeconds = story.lagSeconds(day);
    const [fewest, most] = story.blocks;
    const outcome = playBlocks({
      log,
      horse,
      chance,
      trainerChance,
      plan,
      ladderId,
      version,
      behaviour: demo.behaviour.name,
      session: id,
      handler: handlerKey,
      earlier: evidence,
      rung,
      // By turns, so that a side can be told from what comes first.
      beginSide: nth % 2 === 0 ? "R" : "L",
      moreOn: more,
      blocks: keeps ? 1 : fewest + Math.floor(trainerChance() * (most - fewest + 1)),
      takes: story.takes,
      insists: wilful !== undefined ? 2 : keeps ? 1 : 0,
      reach: (one) => (wilful !== undefined && one >= wilful.rung ? TOO_SOON : (story.reach?.(one, version) ?? 1)),
      script: {
        way: demo.way,
        handlerLagSeconds: lagSeconds,
        taught: taughtBy(lagSeconds),
        zoneWaits: demo.zoneWaits,
        leaves: story.leaves === null ? null : { chance: story.leaves.chance(day), to: story.leaves.to },
        ...(story.circle === undefined
          ? {}
          : { circle: { gait: story.circle.gait, radiusMetres: story.circle.radiusMetres, seconds: story.circle.seconds(day) } }),
        whereChance,
      },
    });
    log.add("session.end");
    log.wait(30);
    lookAfter(log, aroundChance, demo.horse.resting_breaths_per_min ?? 11, story.recovery(day));
    const notes = notesOn(story.notes, day);
    if (notes !== null && aroundChance() < 0.7) {
      const kept = outcome.eased && !outcome.raised ? notes.next : notes.better;
      if (kept.length > 0) log.add("note", { text: pick(aroundChance, kept), about: outcome.eased && !outcome.raised ? "next" : "better" });
      if (!outcome.eased && notes.next.length > 0 && aroundChance() < 0.6)
        log.add("note", { text: pick(aroundChance, notes.next), about: "next" });
    }
    evidence = [...evidence, ...evidenceOfSession(id, reduceSession(log.events), handlerKey)];
    sessions.push({ id, startRung: rung, startWallMs, handler, version, events: log.events });
  }
  return sessions;
}
