import type { EventType, Payload, SessionEvent } from "../events";
import type { WayChange } from "../ladder/by-way";
import type { Criterion } from "../ladder/criterion";
import { classOfSign, dangerOfChoice } from "../signs";
import { type ClockKnowledge, type PlacedEvent, placeEvents } from "./clock";
import { effectiveEvents, type PayloadCheck, withoutDuplicates } from "./effective";
import { SILENCE_MINUTES } from "./silence";
import type { Span, TimeLine } from "./time-line";
import type { Trial } from "./trial";
import { Walk } from "./walk";

export type BlockKind = "warm-up" | "work" | "probe" | "sure";

/** A run of trials on one rung and one side. Times in milliseconds from the start of work. */
export interface Block extends Span {
  readonly number: number;
  readonly eventId: string;
  readonly behaviour: string;
  readonly ladder: string | null;
  readonly version: number | null;
  readonly rung: string;
  readonly criterion: Criterion | null;
  readonly side: "L" | "R" | null;
  readonly kind: BlockKind | null;
  readonly planned: number | null;
  /** The experiment it was worked for, as which of the two, and as which of its blocks; null where there is none. */
  readonly tries: BlockTries | null;
}

/** A block of an experiment. */
export interface BlockTries extends WayChange {
  readonly id: string;
  readonly arm: "A" | "B";
  /** Counted from 1, as it was drawn. */
  readonly n: number;
  /** What it is worked as, in words. Absent in what was logged before 0.14. */
  readonly way?: string;
}

export interface SessionHeader {
  readonly horse: string;
  readonly handler: string | null;
  readonly place: string | null;
  readonly method: string;
}

/** An effective event with its time in milliseconds from the start of work; its type says what its payload holds. */
export type TimedFact<Type extends EventType = EventType> = {
  [T in Type]: {
    readonly id: string;
    readonly type: T;
    readonly recorder: string;
    readonly ms: number;
    readonly payload: Payload<T>;
  };
}[Type];

/**
 * A fact as it is read: a sign has the class its name has in the table,
 * whatever pad it was tapped on, and a wrong choice that is a sign of danger
 * stands as one beside itself.
 */
function asRead(fact: TimedFact, block: Pick<Block, "ladder" | "criterion"> | undefined): TimedFact[] {
  if (fact.type === "signal") {
    const kind = classOfSign(fact.payload.name, fact.payload.class, inKickZone(block));
    return kind === fact.payload.class ? [fact] : [{ ...fact, payload: { ...fact.payload, class: kind } }];
  }
  const name = fact.type === "wrong" ? dangerOfChoice(fact.payload.did ?? null) : null;
  return name === null ? [fact] : [fact, { ...fact, type: "signal", payload: { name, class: "danger" } } as TimedFact<"signal">];
}

/** Places out of a kick's reach: at the head, ahead, at the shoulder, or three metres off and more. */
const OUT_OF_REACH = /head|ahead|shoulder|beyond|out of sight/;
const METRES_OFF = /(\d+(?:[.,]\d+)?)\s*m\b/;
const KICK_REACH_METRES = 3;

/**
 * Whether a person stands where a kick reaches. At work on a ladder that does
 * not say where the handler stands it is taken for so: not said is not out of reach.
 */
function inKickZone(block: Pick<Block, "ladder" | "criterion"> | undefined): boolean {
  if (block === undefined || block.ladder === null) return false;
  const place = block.criterion?.handler_place;
  if (place === undefined) return true;
  const metres = METRES_OFF.exec(place)?.[1];
  if (metres !== undefined) return Number(metres.replace(",", ".")) < KICK_REACH_METRES;
  return !OUT_OF_REACH.test(place);
}

const timedFact = ({ id, type, recorder, payload }: SessionEvent, ms: number) => ({ id, type, recorder, ms, payload }) as TimedFact;

/** Everything derived from the events of one session. */
export interface SessionRecord {
  readonly header: SessionHeader | null;
  /** Server wall clock of the start of work, in milliseconds; null before it. */
  readonly startWallMs: number | null;
  /** By how much that was put right, in milliseconds: the devices' own clocks are this much behind it. */
  readonly shiftMs: number;
  readonly finishMs: number | null;
  /** The last fact of the work itself, for a session that was never finished. */
  readonly lastMs: number;
  readonly blocks: readonly Block[];
  readonly trials: readonly Trial[];
  /** Where the horse was, and what was no work. */
  readonly timeLine: TimeLine;
  /** How long after `lastMs` the session still counts as running where nothing more is tapped, null for as long as it takes; see silence.ts. */
  readonly runsOnMs: number | null;
  /** When the plan that runs by its own clock ends, null where none does or a pause holds it up: until then no tap is no silence. */
  readonly planRunsUntilMs: number | null;
  /** The last tap of the work, by which it can be said that it went on; null before there is one. */
  readonly lastTapId: string | null;
  /** The ask still waiting, or null. */
  readonly openAsk: {
    readonly id: string;
    readonly askMs: number;
    readonly phase: number | null;
    readonly answered: boolean;
    readonly lastAnswer: "met" | "try" | "wrong" | null;
    readonly lastAnswerMs: number | null;
    /** Whether the steps, seconds or metres asked for were said to be reached. */
    readonly reached: boolean;
    readonly phaseSteps: readonly { readonly ms: number; readonly phase: number }[];
  } | null;
  /** Asks that the block, a break or the finish ended before any answer: no trials. */
  readonly cutOffAsks: number;
  readonly offers: number;
  readonly foodPiecesOutside: number;
  readonly facts: readonly TimedFact[];
  readonly undone: number;
  readonly struck: number;
}

function startOfWork(events: readonly PlacedEvent[]): number | null {
  let start: number | null = null;
  for (const { event, ms } of events) {
    if (event.type === "block.start" || event.type === "ask" || event.type === "trial" || event.type === "run.start") {
      if (start === null || ms < start) start = ms;
    }
  }
  return start;
}

/**
 * Derives a session from its events: a pure function of the set of events,
 * whatever their order of arrival and however often they came.
 * Cost grows as n·log n with the number of events.
 * @param check what a correction's result must pass; `reduceSession` brings the schemas' own, which a first script does not load.
 * @example reduceEvents([], {}, check) // { header: null, startWallMs: null, shiftMs: 0, … }
 */
export function reduceEvents(events: Iterable<SessionEvent>, clocks: ClockKnowledge, check: PayloadCheck): SessionRecord {
  const effective = effectiveEvents(placeEvents(withoutDuplicates(events), clocks), check);
  const start = startOfWork(effective.events);
  const walk = new Walk(clocks.silenceMinutes ?? SILENCE_MINUTES);
  const facts: TimedFact[] = [];
  for (const { event, ms } of effective.events) {
    const relative = ms - (start ?? ms);
    walk.take({ event, ms: relative });
    const read = asRead(timedFact(event, relative), walk.blocks.at(-1));
    for (const fact of read) if (fact.type === "signal") walk.sign(fact.ms, fact.payload.class);
    facts.push(...read);
  }
  const open = walk.openTimed;
  const shiftMs = walk.shiftMs ?? 0;
  const { trials, cutOffAsks } = walk.finish();
  const firstOfWork = effective.events.find(({ ms }) => ms === start);
  const given = firstOfWork !== undefined && clocks.givenSeconds?.has(firstOfWork.event.id);
  return {
    header: walk.header,
    startWallMs: start === null ? null : (given ? firstOfWork.event.wall_ms : start) + shiftMs,
    shiftMs,
    finishMs: walk.finishMs,
    lastMs: walk.lastMs,
    blocks: walk.blocks,
    trials,
    timeLine: walk.timeLine.drawn,
    runsOnMs: Number.isFinite(walk.runsOnMs) ? walk.runsOnMs + Math.max(0, (walk.planRunsUntilMs ?? 0) - walk.lastMs) : null,
    planRunsUntilMs: walk.planRunsUntilMs,
    lastTapId: walk.lastTapId,
    openAsk:
      open === null
        ? null
        : {
            id: open.askId,
            askMs: open.askMs,
            phase: open.phaseSteps.at(-1)?.phase ?? null,
            answered: open.answered,
            lastAnswer: open.lastAnswer,
            lastAnswerMs: open.lastAnswerMs,
            reached: open.reached,
            phaseSteps: open.phaseSteps,
          },
    cutOffAsks,
    offers: walk.offers,
    foodPiecesOutside: walk.foodPiecesOutside,
    facts,
    undone: effective.undone,
    struck: effective.struck,
  };
}
