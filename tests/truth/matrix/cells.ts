import { mixedChance } from "@/core/chance";
import { STILL } from "../yard";
import { YARDS } from "./sentences";
import type { Dial, Row, Yard } from "./yards";

/** Some horses of one yard under one dial: what is worked out at once, and written down. */
export interface Part {
  readonly yard: string;
  readonly dial: string;
  readonly from: number;
  readonly to: number;
}

/** What became of a sentence on some horses. */
export interface Count {
  readonly so: number;
  readonly of: number;
  readonly there: number;
  readonly asked: number;
}

/** One cell of the matrix. */
export interface Cell {
  readonly sentence: string;
  readonly dial: string;
  readonly limit: number;
  readonly share: number;
  readonly of: number;
  /** How often it is said where something is there, and what that is; null where that is not asked. */
  readonly found: { readonly share: number; readonly what: string } | null;
  /** Over its limit by more than two standard errors of the simulation, within them, or under it. */
  readonly state: "holds" | "near" | "over";
}

export const NO_COUNT: Count = { so: 0, of: 0, there: 0, asked: 0 };
export const addCounts = (a: Count, b: Count): Count => ({
  so: a.so + b.so,
  of: a.of + b.of,
  there: a.there + b.there,
  asked: a.asked + b.asked,
});

const inYard = (name: string): Yard => {
  const yard = YARDS.find((one) => one.name === name);
  if (yard === undefined) throw new RangeError(`There is no yard ${name}.`);
  return yard;
};
/** Rows of a yard that are asked under a dial. */
const rowsUnder = ({ rows }: Yard, [, change]: Dial): readonly Row[] => rows.filter(({ trueWhere }) => !trueWhere(change));

/** What is found needs no such precision as what is false: one horse in five. */
const FOUND_EVERY = 5;

/** One part: of each row its counts. The seed draws the horses: limits are never tuned on the one that judges them. */
export function countPart({ yard: name, dial, from, to }: Part, seed: number, wanted: (row: string) => boolean): Record<string, Count> {
  const yard = inYard(name);
  const under = yard.dials.find(([own]) => own === dial);
  if (under === undefined) throw new RangeError(`${name} has nothing to do with ${dial}.`);
  const dials = { ...STILL, ...under[1] };
  const rows = new Set(rowsUnder(yard, under).flatMap((row) => (wanted(row.name) ? [row.name] : [])));
  const counts = Object.fromEntries([...rows].map((row) => [row, NO_COUNT]));
  const put = (row: string, count: Partial<Count>) => {
    counts[row] = addCounts(counts[row] ?? NO_COUNT, { ...NO_COUNT, ...count });
  };
  for (let i = from; i < to; i++) {
    for (const [row, was] of yard.nothing(mixedChance(`${seed} ${name} ${dial} ${i}`), dials, rows)) put(row, { so: was ? 1 : 0, of: 1 });
    if (i % FOUND_EVERY === 0)
      for (const [row, was] of yard.something(`${seed} there ${name} ${dial} ${i}`, dials, rows))
        put(row, { there: was ? 1 : 0, asked: 1 });
  }
  return counts;
}

/** Horses that are worked out at once: few enough that little is lost where it is cut off. */
const AT_ONCE = 100;

/** Everything that is to be worked out for so many horses. */
export function partsOf(horses: number, wanted: (row: string) => boolean, dialed: (dial: string) => boolean = () => true): Part[] {
  const parts: Part[] = [];
  for (const yard of YARDS)
    for (const dial of yard.dials) {
      if (!dialed(dial[0]) || !rowsUnder(yard, dial).some(({ name }) => wanted(name))) continue;
      for (let from = 0; from < horses; from += AT_ONCE)
        parts.push({ yard: yard.name, dial: dial[0], from, to: Math.min(horses, from + AT_ONCE) });
    }
  // The first hundred of every cell, then the second: where it is cut off, each cell is known to the same precision.
  return parts.sort((a, b) => a.from - b.from);
}

/** What a cell comes to. */
export function cellOf({ name, limit, found }: Row, dial: string, { so, of, there, asked }: Count): Cell {
  const share = of === 0 ? 0 : so / of;
  const most = limit / 100;
  const error = Math.sqrt((most * (1 - most)) / Math.max(1, of));
  return {
    sentence: name,
    dial,
    limit,
    share,
    of,
    found: found === null || asked === 0 ? null : { share: there / asked, what: found },
    state: share > most + 2 * error ? "over" : share > most ? "near" : "holds",
  };
}

/** Every cell that was worked out, by sentence and dial. */
export function cellsOf(counted: ReadonlyMap<string, Readonly<Record<string, Count>>>): Cell[] {
  return YARDS.flatMap((yard) =>
    yard.rows.flatMap((row) =>
      yard.dials.flatMap((dial) => {
        const count = counted.get(keyOf(yard.name, dial[0]))?.[row.name];
        return count === undefined ? [] : [cellOf(row, dial[0], count)];
      }),
    ),
  );
}

/** Where the counts of a yard under a dial are put together. */
export const keyOf = (yard: string, dial: string): string => `${yard} | ${dial}`;

/** One cell at once, for the tests. */
export function oneCell(sentence: string, dial: string, horses: number, seed: number): Cell {
  const yard = YARDS.find(({ rows }) => rows.some(({ name }) => name === sentence));
  const row = yard?.rows.find(({ name }) => name === sentence);
  if (yard === undefined || row === undefined) throw new RangeError(`There is no sentence ${sentence}.`);
  const counts = countPart({ yard: yard.name, dial, from: 0, to: horses }, seed, (name) => name === sentence);
  return cellOf(row, dial, counts[sentence] ?? NO_COUNT);
}
