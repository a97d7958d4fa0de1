import { eventOf, type Fact, type Payload, type SessionEvent } from "../events/fact";
import type { Outcome } from "../evidence/group";
import type { Criterion } from "../ladder/criterion";
import type { BlockKind } from "../record/reduce";
import { sideLetter } from "../words";

/** One block as it is remembered: counts, the phase mostly used, rough minutes. */
export interface LateBlock {
  readonly behaviour: string;
  readonly ladder: string;
  readonly version: number;
  readonly rung: number;
  readonly criterion: Criterion;
  readonly side: "L" | "R" | null;
  readonly kind: BlockKind;
  readonly planned: number | null;
  readonly minutes: number;
  readonly met: number;
  readonly try: number;
  readonly miss: number;
  readonly refused: number;
  /** How many of the met ones came at the lightest cue; null where it is not remembered. */
  readonly metAtLightest: number | null;
  /** Phase of the others; null where it is not remembered, which rules out a number at the lightest that leaves others. */
  readonly phase: number | null;
}

/** A session written from memory or paper. */
export interface LateSession {
  readonly session: string;
  readonly recorder: string;
  readonly load: string;
  readonly startWallMs: number;
  readonly horse: string;
  readonly handler: string;
  readonly place: string;
  readonly method: Payload<"session.start">["method"];
  readonly blocks: readonly LateBlock[];
  readonly better: string;
  readonly next: string;
}

export const MOST_LATE_TRIALS = 500;

/**
 * Counts laid out as a list, each outcome spread as evenly as can be: nobody
 * remembers the order, and no run of misses must be made up. The share met
 * of any stretch is then near the whole.
 * @example spreadEvenly({ met: 7, try: 3, miss: 1, refused: 0 }) // ["met", …]
 */
export function spreadEvenly(counts: Readonly<Record<Outcome, number>>): Outcome[] {
  const kinds = (["met", "try", "miss", "refused"] as const).filter((kind) => counts[kind] > 0);
  const all = kinds.flatMap((kind, order) =>
    Array.from({ length: counts[kind] }, (_, i) => ({ kind, at: (i + 0.5) / counts[kind], order })),
  );
  return all.sort((a, b) => a.at - b.at || a.order - b.order).map(({ kind }) => kind);
}

/** What is wrong with a block as typed, or null. @example lateBlockProblem(block) // "Nothing is counted yet." */
export function lateBlockProblem(block: LateBlock): string | null {
  const { met, metAtLightest, minutes, phase, side, rung, criterion } = block;
  const counts = [met, block.try, block.miss, block.refused, metAtLightest ?? 0];
  if (counts.some((n) => !Number.isInteger(n) || n < 0)) return "Counts are whole numbers from 0.";
  const all = met + block.try + block.miss + block.refused;
  if (all === 0) return "Nothing is counted yet.";
  if (all > MOST_LATE_TRIALS) return `At most ${MOST_LATE_TRIALS} asks in a block.`;
  if ((metAtLightest ?? 0) > met) return "More at the lightest cue than were met.";
  // What is written must come out as it was written: an answer that its rung would not take for met is none.
  const others = met - (metAtLightest ?? 0);
  const asked = criterion.side;
  if (side !== null && asked !== undefined && asked !== "both" && side !== sideLetter(asked))
    return `Rung ${rung} asks for the ${asked}. Choose that side, or the rung that was asked.`;
  if (metAtLightest !== null && others > 0 && phase === null)
    return "At which cue were the others? Say it, or leave those at the lightest empty.";
  if (metAtLightest !== null && others > 0 && phase === 1) return "The others cannot be at the lightest cue too.";
  if (others > 0 && phase !== null && criterion.max_phase !== undefined && phase > criterion.max_phase)
    return `Rung ${rung} asks for ${criterion.phases?.[criterion.max_phase - 1] ?? `phase ${criterion.max_phase}`} or lighter: answers at a clearer cue are tries.`;
  if (!(minutes > 0) || minutes > 240) return "Minutes: more than 0, at most 240.";
  return null;
}

/**
 * The events of a session entered late. Every trial is a whole one marked
 * late, without latency, lags or waiting; the times inside a block are only
 * its rough minutes divided.
 * @param newId makes the ids of the events.
 * @throws RangeError for a block that cannot be; see {@link lateBlockProblem}.
 * @example lateEvents(late, newId) // 21 of them
 */
export function lateEvents(late: LateSession, newId: () => string): SessionEvent[] {
  const events: SessionEvent[] = [];
  let ms = 0;
  const add = (fact: Fact) =>
    events.push(
      eventOf(
        {
          id: newId(),
          session: late.session,
          recorder: late.recorder,
          load: late.load,
          seq: events.length,
          mono_ms: Math.round(ms),
          wall_ms: late.startWallMs + Math.round(ms),
        },
        fact,
      ),
    );
  add({ type: "session.start", payload: { horse: late.horse, handler: late.handler, place: late.place, method: late.method } });
  late.blocks.forEach((block, i) => {
    const problem = lateBlockProblem(block);
    if (problem !== null) throw new RangeError(`lateEvents: block ${i + 1}: ${problem}`);
    const { behaviour, ladder, version, rung, criterion, side, kind, planned } = block;
    const begin = ms;
    add({
      type: "block.start",
      payload: { block: i + 1, behaviour, ladder, version, rung, criterion: { ...criterion }, side: side ?? "", kind, planned },
    });
    const list = spreadEvenly({ met: block.met, try: block.try, miss: block.miss, refused: block.refused });
    const lightest = block.metAtLightest ?? 0;
    let met = 0;
    list.forEach((outcome, n) => {
      ms = begin + ((n + 0.5) / list.length) * block.minutes * 60_000;
      // The lightest ones spread over the met ones, for the same reason.
      const light = outcome === "met" && Math.floor(((met + 1) * lightest) / block.met) > Math.floor((met * lightest) / block.met);
      if (outcome === "met") met++;
      const phase = light ? 1 : block.phase;
      add({
        type: "trial",
        payload: { outcome, logged: "late", ...(side === null ? {} : { side }), ...(phase === null ? {} : { phase }) },
      });
    });
    ms = begin + block.minutes * 60_000;
    add({ type: "block.end" });
  });
  add({ type: "session.end" });
  if (late.better.trim() !== "") add({ type: "note", payload: { text: late.better.trim(), about: "better" } });
  if (late.next.trim() !== "") add({ type: "note", payload: { text: late.next.trim(), about: "next" } });
  return events;
}
