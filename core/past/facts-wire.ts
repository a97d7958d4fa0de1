import type { BlockTries } from "../record";
import { byTime, type Moment, type MomentKind, NO_FACTS, type PastBlock, type PastFacts } from "./facts";

/** `[startMs, endMs, planned, worked ms or null where it worked all the while, tries]`. */
type PackedBlock = readonly [number, number, (number | null)?, (number | null)?, BlockTries?];

/** A session's facts as they are kept: what is empty is left out, and moments stand by kind and name. */
interface PackedFacts {
  readonly of?: Partial<Pick<PastFacts, "method" | "airC" | "humidity" | "wind" | "firstSide">>;
  readonly end?: number;
  readonly blocks?: readonly PackedBlock[];
  readonly breaks?: PastFacts["breaks"];
  readonly away?: PastFacts["away"];
  readonly moments?: Partial<Record<MomentKind, Readonly<Record<string, readonly number[]>>>>;
  /** By word, what was taken in the first row and what was not in the second. */
  readonly words?: Readonly<Record<string, readonly [taken: readonly number[], not: readonly number[]]>>;
  readonly met?: readonly string[];
}

const orNothing = <T extends readonly unknown[]>(list: T): T | undefined => (list.length === 0 ? undefined : list);

function packBlock({ startMs, endMs, planned, seconds, tries }: PastBlock): PackedBlock {
  const workedMs = Math.round(seconds * 1000);
  const allTheWhile = workedMs === endMs - startMs;
  if (tries !== undefined) return [startMs, endMs, planned, allTheWhile ? null : workedMs, tries];
  if (!allTheWhile) return [startMs, endMs, planned, workedMs];
  return planned === null ? [startMs, endMs] : [startMs, endMs, planned];
}

const readBlock = ([startMs, endMs, planned = null, workedMs = null, tries]: PackedBlock): PastBlock => ({
  seconds: (workedMs ?? endMs - startMs) / 1000,
  planned,
  startMs,
  endMs,
  ...(tries === undefined ? {} : { tries }),
});

/**
 * A session's facts as a short text, about a third of their JSON.
 * @example readFacts(packFacts(NO_FACTS)) // NO_FACTS
 */
export function packFacts(facts: PastFacts): string {
  const { method, airC, humidity, wind, firstSide } = facts;
  const said = Object.entries({ method, airC, humidity, wind, firstSide }).filter(([, value]) => value !== null);
  const moments = new Map<MomentKind, Map<string, number[]>>();
  for (const [ms, kind, name] of facts.moments) {
    const named = moments.get(kind) ?? new Map<string, number[]>();
    const list = named.get(name);
    // Added to, never copied: a session may hold thousands of one sign.
    if (list === undefined) named.set(name, [ms]);
    else list.push(ms);
    moments.set(kind, named);
  }
  const words = new Map<string, [number[], number[]]>();
  for (const { ms, word, taken } of facts.words) {
    const both = words.get(word) ?? [[], []];
    both[taken ? 0 : 1].push(ms);
    words.set(word, both);
  }
  const packed: PackedFacts = {
    of: said.length === 0 ? undefined : Object.fromEntries(said),
    end: facts.endMs === 0 ? undefined : facts.endMs,
    blocks: orNothing(facts.blocks.map(packBlock)),
    breaks: orNothing(facts.breaks),
    away: orNothing(facts.away),
    moments: moments.size === 0 ? undefined : Object.fromEntries([...moments].map(([kind, named]) => [kind, Object.fromEntries(named)])),
    words: words.size === 0 ? undefined : Object.fromEntries(words),
    met: orNothing(facts.wrongMet),
  };
  return JSON.stringify(packed);
}

/** The facts out of their text. @example readFacts("{}") // { method: null, airC: null, humidity: null, … } */
export function readFacts(text: string): PastFacts {
  const packed = JSON.parse(text) as PackedFacts;
  const moments: Moment[] = [];
  for (const [kind, named] of Object.entries(packed.moments ?? {}))
    for (const [name, times] of Object.entries(named)) for (const ms of times) moments.push([ms, kind as MomentKind, name]);
  const words = Object.entries(packed.words ?? {}).flatMap(([word, [taken, not]]) => [
    ...taken.map((ms) => ({ ms, word, taken: true })),
    ...not.map((ms) => ({ ms, word, taken: false })),
  ]);
  return {
    ...NO_FACTS,
    ...packed.of,
    endMs: packed.end ?? 0,
    blocks: (packed.blocks ?? []).map(readBlock),
    breaks: packed.breaks ?? [],
    away: packed.away ?? [],
    moments: moments.sort(byTime),
    words: words.sort((a, b) => a.ms - b.ms),
    wrongMet: packed.met ?? [],
  };
}
