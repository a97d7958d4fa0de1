import { type Chance, drawExponential, drawNormal, pick } from "@/core/chance";
import {
  CONNECTION_ANSWERS,
  CONNECTION_BEHAVIOUR,
  CONNECTION_QUESTION,
  type ConnectionAnswer,
  FIRST_LOOK_BEHAVIOUR,
  FIRST_LOOK_ITEMS,
  FIRST_LOOK_STEPS,
  firstLookPlan,
  proposeTouch,
  REST_BEHAVIOUR,
  SIGNS,
  TOUCH_BEHAVIOUR,
  type Touch,
  TouchMap,
  type TouchTool,
  type TouchZone,
} from "@/core/know";
import { criterionOf } from "@/core/ladder";
import type { SessionEvent, SessionKind } from "@/core/schemas";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { HEART_STRAND } from "@/core/welfare";
import { drawUuid, EventLog } from "./event-log";

/** How a horse of the invented yard is to know: what it is strong in, what worries its skin, what it looks for. */
export interface DemoNature {
  /** Chance of a met answer for items of the first look; the others take the usual. */
  readonly items: Readonly<Record<string, number>>;
  readonly usual: number;
  readonly weakSide: "L" | "R";
  /** How far the weaker side is behind, as a chance. */
  readonly sideGap: number;
  /** Zones it minds, with how much lower their grade begins. */
  readonly minds: Readonly<Partial<Record<TouchZone, number>>>;
  readonly goesTo: Readonly<Partial<Record<ConnectionAnswer, number>>>;
  readonly restBreaths: number;
  readonly restHeart: number;
  readonly tension: number;
}

/** A session that is not work on a ladder, ready to be stored. */
export interface DemoKnowSession {
  readonly id: string;
  readonly kind: SessionKind;
  readonly startWallMs: number;
  readonly events: readonly SessionEvent[];
}

interface Who {
  readonly horse: string;
  readonly handler: string;
  readonly place: string;
  readonly recorder: string;
}

const clamp = (x: number, low: number, high: number) => Math.min(high, Math.max(low, x));

function open(log: EventLog, who: Who, block: { behaviour: string; rung: string; sentence: string } | null): void {
  log.add("session.start", { horse: who.horse, handler: who.handler, place: who.place, method: "pressure-release" });
  log.wait(12);
  if (block !== null)
    log.add("block.start", {
      block: 1,
      behaviour: block.behaviour,
      rung: block.rung,
      criterion: { sentence: block.sentence },
      side: "",
      kind: "probe",
    });
}

function close(log: EventLog): void {
  log.add("block.end");
  log.wait(3);
  log.add("session.end");
}

/** A first look as it was recorded; `steps` cuts it off half way. */
function firstLook(log: EventLog, who: Who, nature: DemoNature, chance: Chance, gain: number, steps: number): void {
  open(log, who, null);
  const plan = firstLookPlan();
  FIRST_LOOK_STEPS.slice(0, steps).forEach(({ item, side }, i) => {
    log.add("block.start", {
      block: i + 1,
      behaviour: FIRST_LOOK_BEHAVIOUR,
      rung: item.key,
      criterion: { ...criterionOf(plan, FIRST_LOOK_ITEMS.indexOf(item) + 1) },
      side: side ?? "",
      kind: "probe",
      planned: plan.plannedRepetitions,
    });
    const p = clamp((nature.items[item.key] ?? nature.usual) + gain - (side === nature.weakSide ? nature.sideGap : 0), 0.05, 0.97);
    const trials = 2 + (chance() < 0.5 ? 1 : 0);
    for (let n = 0; n < trials; n++) {
      const met = chance() < p;
      const outcome = met ? "met" : chance() < 0.5 ? "try" : chance() < 0.6 ? "miss" : "refused";
      let phase = 1;
      while (phase < plan.phases.length && chance() > 0.3 + 0.6 * p) phase++;
      const latency = (phase - 1) * 2.6 + 0.4 + drawExponential(chance, 1.4);
      log.wait(latency);
      log.add("trial", {
        outcome,
        phase,
        logged: "tally",
        ...(side === null ? {} : { side }),
        latency_s: Math.round(latency * 10) / 10,
        waited_s: Math.round(latency * 10) / 10,
        ease: clamp(Math.round(drawNormal(chance, 1.6 + 1.6 * p, 0.5)), 0, 4),
        released: met || outcome === "try" ? 1 : 0,
      });
      log.wait(4 + chance() * 4);
    }
    log.add("block.end");
    log.wait(8 + chance() * 8);
  });
  if (steps >= FIRST_LOOK_STEPS.length) log.add("session.end");
}

/** A session of touching that follows the map's own proposals. */
function touchOver(log: EventLog, who: Who, nature: DemoNature, chance: Chance, touches: Touch[], count: number, gain: number): void {
  open(log, who, { behaviour: TOUCH_BEHAVIOUR, rung: "body", sentence: "Stands soft while it is touched." });
  const NEARER: Partial<Record<TouchTool, number>> = { rope: 0.15, brush: 0.3, hand: 0.4 };
  // A zone that is not taken twice in a day is left for another day.
  const tries = new Map<TouchZone, number>();
  for (let n = 0; n < count; n++) {
    const next = proposeTouch(
      new TouchMap(touches),
      [...tries].filter(([, times]) => times >= 2).map(([zone]) => zone),
    );
    if (next === null) break;
    const { zone, side, tool } = next;
    const seen = touches.filter((t) => t.zone === zone && t.side === side).length;
    const mean = 3.35 + gain - (nature.minds[zone] ?? 0) * (side === nature.weakSide ? 1.35 : 1) - (NEARER[tool] ?? 0) + 0.2 * seen;
    const grade = clamp(Math.round(drawNormal(chance, mean, 0.45)), 0, 4);
    log.wait(5 + chance() * 6);
    if (grade < 3) tries.set(zone, (tries.get(zone) ?? 0) + 1);
    touches.push({ wallMs: log.wallMs, zone, side, tool, grade });
    log.add("touch", { zone, side, tool, grade });
    log.add("trial", {
      outcome: (["refused", "miss", "try", "met", "met"] as const)[grade] ?? "met",
      side,
      ease: grade,
      logged: "tally",
      released: grade >= 2 ? 1 : 0,
      note: `${zone}, ${tool}`,
    });
  }
  log.wait(4);
  close(log);
}

function watch(log: EventLog, who: Who, nature: DemoNature, chance: Chance, observers: number): void {
  const seconds = 10;
  open(log, who, { behaviour: CONNECTION_BEHAVIOUR, rung: `beep each ${seconds} s`, sentence: "What it is with at the beep." });
  const draw = () => {
    let left = chance();
    for (const answer of CONNECTION_ANSWERS) {
      left -= nature.goesTo[answer] ?? 0;
      if (left < 0) return answer;
    }
    return "nothing in particular" as const;
  };
  let now = draw();
  for (let beep = 1; beep <= 48; beep++) {
    log.wait(seconds);
    if (chance() < 0.45) now = draw();
    for (let o = 0; o < observers; o++) {
      const answer = o > 0 && chance() < 0.1 ? draw() : now;
      log.add("sample", { question: CONNECTION_QUESTION, answer, observer: o === 0 ? "first" : "second", beep, interval_s: seconds });
    }
  }
  close(log);
}

function atRest(log: EventLog, who: Who, nature: DemoNature, chance: Chance): void {
  open(log, who, { behaviour: REST_BEHAVIOUR, rung: "rest", sentence: "Watched at rest; nothing is asked." });
  const gap = 60_000 / nature.restBreaths;
  const taps = [0];
  for (let n = 0; n < Math.round(nature.restBreaths * 1.5); n++)
    taps.push(Math.round((taps.at(-1) ?? 0) + gap * clamp(drawNormal(chance, 1, 0.15), 0.4, 1.8)));
  for (let minute = 0; minute < 10; minute++) {
    log.wait(60);
    if (chance() < 0.5) log.add("signal", { name: pick(chance, SIGNS.ease), class: "ease" });
    if (chance() < 0.25 * nature.tension) log.add("signal", { name: pick(chance, SIGNS.tension), class: "tension" });
    if (minute === 4) log.add("breath", { taps_ms: taps });
    if (minute === 8)
      log.add("measure", { strand: HEART_STRAND, value: Math.round(drawNormal(chance, nature.restHeart, 1.5)), unit: "a minute" });
  }
  close(log);
}

/** Days before the end on which each kind of session was held. */
const LOOK_DAYS = [88, 12] as const;
const TOUCH_DAYS = [86, 70, 41, 20, 6] as const;
const WATCH_DAY = 16;
const REST_DAYS = [87, 45, 9] as const;

/**
 * What the yard's people did to know a horse, over the same three months.
 * @param cutOff whether the re-test was cut off half way: it is kept in part.
 */
export function knowSessions(who: Who, nature: DemoNature, endWallMs: number, chance: Chance, cutOff: boolean): DemoKnowSession[] {
  const midnight = Math.floor(endWallMs / MILLISECONDS_PER_DAY) * MILLISECONDS_PER_DAY;
  const sessions: DemoKnowSession[] = [];
  const touches: Touch[] = [];
  const play = (kind: SessionKind, daysAgo: number, hour: number, write: (log: EventLog) => void) => {
    const startWallMs = midnight - daysAgo * MILLISECONDS_PER_DAY + Math.round((hour + chance()) * 3_600_000);
    const id = drawUuid(chance);
    const log = new EventLog(id, who.recorder, startWallMs, chance);
    write(log);
    sessions.push({ id, kind, startWallMs, events: log.events });
  };
  LOOK_DAYS.forEach((day, i) => {
    const steps = cutOff && i > 0 ? 8 : FIRST_LOOK_STEPS.length;
    play("first-look", day, 9, (log) => firstLook(log, who, nature, chance, 0.2 * i, steps));
  });
  for (const [i, day] of TOUCH_DAYS.entries()) play("touch", day, 15, (log) => touchOver(log, who, nature, chance, touches, 10, 0.06 * i));
  play("connection", WATCH_DAY, 10, (log) => watch(log, who, nature, chance, 2));
  for (const day of REST_DAYS) play("signs", day, 7, (log) => atRest(log, who, nature, chance));
  return sessions;
}
