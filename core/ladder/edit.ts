import { difficulty, notch, type Strand, type StrandValue } from "../strands";
import { FEWEST_RUNGS, MOST_RUNGS, MOST_STRANDS, type Rung } from "./ladder";
import { splitStep } from "./split";

/** The part of a ladder that is drawn and edited as a rope: its strands and its rungs. */
export interface Rope {
  readonly strands: readonly Strand[];
  readonly rungs: readonly Rung[];
}

/** An edit that cannot be done says why, in words for the screen. */
export class RopeProblem extends RangeError {}

const withRungs = (rope: Rope, rungs: readonly Rung[]): Rope => {
  if (rungs.length > MOST_RUNGS) throw new RopeProblem(`That makes ${rungs.length} rungs; a ladder holds at most ${MOST_RUNGS}.`);
  if (rungs.length < FEWEST_RUNGS) throw new RopeProblem(`A ladder keeps at least ${FEWEST_RUNGS} rungs.`);
  return { ...rope, rungs };
};

function rungAt(rope: Rope, number: number): Rung {
  const rung = rope.rungs[number - 1];
  if (rung === undefined) throw new RopeProblem(`There is no rung ${number}.`);
  return rung;
}

/** Replaces one rung, counted from 1. A rung that stays as it was leaves the rope the same. */
function replaceRung(rope: Rope, number: number, change: (rung: Rung) => Rung): Rope {
  const before = rungAt(rope, number);
  const after = change(before);
  return after === before ? rope : { ...rope, rungs: rope.rungs.map((rung, i) => (i === number - 1 ? after : rung)) };
}

/**
 * Sets a strand's value on a rung. The reason a fault is kept for stays; it is said only while there is a fault.
 * @example setValue(rope, 2, "stay", 2)
 */
export function setValue(rope: Rope, number: number, strandId: string, value: StrandValue): Rope {
  return replaceRung(rope, number, (rung) =>
    rung.values[strandId] === value ? rung : { ...rung, values: { ...rung.values, [strandId]: value } },
  );
}

/** Moves a strand's value on a rung by notches, harder where positive. @example stepValue(rope, 1, "stay", 3) */
export function stepValue(rope: Rope, number: number, strandId: string, notches: number, bounds?: readonly [number, number]): Rope {
  const strand = rope.strands.find(({ id }) => id === strandId);
  const value = rungAt(rope, number).values[strandId];
  if (strand === undefined || value === undefined) throw new RopeProblem("There is no such strand.");
  let next = value;
  for (let n = 0; n < Math.abs(notches); n++) next = notch(strand, next, notches > 0 ? 1 : -1, bounds);
  return setValue(rope, number, strandId, next);
}

/** Changes what a rung says beside its values; undefined takes the ladder's own again. @example setRung(rope, 2, { kept: "known" }) */
export function setRung(rope: Rope, number: number, change: Partial<Omit<Rung, "values">>): Rope {
  return replaceRung(
    rope,
    number,
    (rung) => Object.fromEntries(Object.entries({ ...rung, ...change }).filter(([, v]) => v !== undefined)) as unknown as Rung,
  );
}

const withoutKept = ({ kept: _, ...rung }: Rung): Rung => rung;

/** A rung like this one, right after it. @example copyRung(rope, 1) */
export function copyRung(rope: Rope, number: number): Rope {
  const copy = withoutKept(rungAt(rope, number));
  return withRungs(rope, [...rope.rungs.slice(0, number), copy, ...rope.rungs.slice(number)]);
}

/** What a rung asks and says, however its keys stand; the reason a fault is kept for aside. */
const askedBy = (rung: Rung) =>
  JSON.stringify(
    Object.entries(withoutKept(rung))
      .map(([key, value]) => [key, key === "values" ? Object.entries(value as object).sort() : value])
      .sort(),
  );

/** Numbers of rungs that ask the same as the one before them, word for word: a step that is none. @example likeTheOneBefore(copyRung(rope, 2).rungs) // [3] */
export const likeTheOneBefore = (rungs: readonly Rung[]): number[] =>
  rungs.flatMap((rung, i) => (i > 0 && askedBy(rung) === askedBy(rungs[i - 1] as Rung) ? [i + 1] : []));

/**
 * The rope without a rung, counted from 1. @throws {RopeProblem} where it has none of that number.
 * @example deleteRung(rope, 2).rungs.length // 4
 */
export function deleteRung(rope: Rope, number: number): Rope {
  rungAt(rope, number);
  return withRungs(
    rope,
    rope.rungs.filter((_, i) => i !== number - 1),
  );
}

/** Moves a rung to another place; past either end it stays at the end. @example moveRung(rope, 2, 1) */
export function moveRung(rope: Rope, number: number, to: number): Rope {
  const rung = rungAt(rope, number);
  const place = Math.min(rope.rungs.length, Math.max(1, to));
  if (place === number) return rope;
  const rest = rope.rungs.filter((_, i) => i !== number - 1);
  return { ...rope, rungs: [...rest.slice(0, place - 1), rung, ...rest.slice(place - 1)] };
}

/** Makes one rung of this one and the next, with the harder value of each strand. @example mergeRungs(rope, 1) */
export function mergeRungs(rope: Rope, number: number): Rope {
  const here = rungAt(rope, number);
  const next = rope.rungs[number];
  if (next === undefined) throw new RopeProblem("There is no rung after this one to merge with.");
  const values = Object.fromEntries(
    rope.strands.map((strand) => {
      const [a, b] = [here.values[strand.id] as StrandValue, next.values[strand.id] as StrandValue];
      return [strand.id, difficulty(strand, a) > difficulty(strand, b) ? a : b];
    }),
  );
  return withRungs(rope, [...rope.rungs.slice(0, number - 1), { ...withoutKept(next), values }, ...rope.rungs.slice(number + 1)]);
}

/** Splits the step to a rung; see {@link splitStep}. @example splitRung(rope, 2) */
export function splitRung(rope: Rope, number: number): Rope {
  return withRungs(rope, splitStep(rope.strands, rope.rungs, number));
}

/** Adds a strand with the same value on every rung. @example addStrand(rope, strand, "soft") */
export function addStrand(rope: Rope, strand: Strand, value: StrandValue): Rope {
  if (rope.strands.length >= MOST_STRANDS) throw new RopeProblem(`A ladder holds at most ${MOST_STRANDS} strands.`);
  if (rope.strands.some(({ id }) => id === strand.id)) throw new RopeProblem("Each strand needs its own id.");
  return {
    strands: [...rope.strands, strand],
    rungs: rope.rungs.map((rung) => ({ ...rung, values: { ...rung.values, [strand.id]: value } })),
  };
}

/**
 * The rope without a strand, and its values gone from every rung. @throws {RopeProblem} for the last one.
 * @example removeStrand(rope, strandId).strands.length // 2
 */
export function removeStrand(rope: Rope, strandId: string): Rope {
  if (rope.strands.length <= 1) throw new RopeProblem("A ladder keeps at least one strand.");
  return {
    strands: rope.strands.filter(({ id }) => id !== strandId),
    rungs: rope.rungs.map((rung) => ({
      ...rung,
      values: Object.fromEntries(Object.entries(rung.values).filter(([id]) => id !== strandId)),
    })),
  };
}

/**
 * Changes a strand itself. Levels renamed keep their place on every rung:
 * a value that is no longer a level goes to the level at its old place.
 * @example changeStrand(rope, "tether", change)
 */
export function changeStrand(
  rope: Rope,
  strandId: string,
  change: Partial<Pick<Strand, "name" | "unit" | "levels" | "harder" | "kind">>,
): Rope {
  const before = rope.strands.find(({ id }) => id === strandId);
  if (before === undefined) throw new RopeProblem("There is no such strand.");
  const after: Strand = { ...before, ...change };
  const moved = (value: StrandValue | undefined): StrandValue => {
    if (after.kind === "number") return typeof value === "number" ? value : 1;
    if (typeof value === "string" && after.levels.includes(value)) return value;
    const place = before.kind === "levels" ? before.levels.indexOf(String(value)) : 0;
    return after.levels[Math.min(Math.max(0, place), after.levels.length - 1)] ?? "";
  };
  const same = change.levels === undefined && change.kind === undefined;
  return {
    strands: rope.strands.map((strand) => (strand.id === strandId ? after : strand)),
    rungs: same
      ? rope.rungs
      : rope.rungs.map((rung) => ({ ...rung, values: { ...rung.values, [strandId]: moved(rung.values[strandId]) } })),
  };
}

/**
 * Turns the levels of a strand about, each rung keeping its word: what was the hard end is the easy one.
 * @example turnLevels(rope, "tether")
 */
export function turnLevels(rope: Rope, strandId: string): Rope {
  return {
    ...rope,
    strands: rope.strands.map((strand) => (strand.id === strandId ? { ...strand, levels: [...strand.levels].reverse() } : strand)),
  };
}

/**
 * Turns a strand of levels about together with its rungs: each rung takes the
 * level at the same place from the other end, so that the ladder still climbs.
 * @example mirrorStrand(rope, "tether")
 */
export function mirrorStrand(rope: Rope, strandId: string): Rope {
  const strand = rope.strands.find(({ id }) => id === strandId);
  if (strand === undefined || strand.kind !== "levels") throw new RopeProblem("Only a strand of levels can be turned about.");
  const turned = turnLevels(rope, strandId);
  const levels = turned.strands.find(({ id }) => id === strandId)?.levels ?? [];
  return {
    ...turned,
    rungs: rope.rungs.map((rung) => ({
      ...rung,
      values: { ...rung.values, [strandId]: levels[strand.levels.indexOf(String(rung.values[strandId]))] ?? String(rung.values[strandId]) },
    })),
  };
}
