import { relativeHeights, type Strand, type StrandValue, shortNumber } from "@/core/strands";

export const LABEL = 118;
/** Eight rungs have to fit beside their reasons on a laptop. */
export const COLUMN = 92;
export const ROW = 82;
export const HEAD = 44;
const RISE = 34;
/** From the top of a row to where its cord lies when it is slack. */
const BASE = 62;

export const valueWords = (value: StrandValue | undefined) =>
  value === undefined ? "" : typeof value === "number" ? shortNumber(value) : value;

/** Cuts a label so that it stays inside its column; the full words are in the title. */
export const shorten = (words: string, most = 13) => (words.length > most ? `${words.slice(0, most - 1)}…` : words);

/** Where a cord runs at a height from 0 to 1, from the top of its row. */
export const cordY = (height: number) => BASE - height * RISE;

/** The rungs that are drawn, counted from 0, the last included. */
export interface Shown {
  readonly first: number;
  readonly last: number;
}

/** A cord through its row over the rungs shown: level on each rung, bending from one to the next. */
export function cordPath(heights: readonly number[], { first, last }: Shown): string {
  let d = "";
  for (let i = first; i <= last; i++) {
    const y = cordY(heights[i] as number);
    const left = LABEL + i * COLUMN;
    const before = i === first ? y : cordY(heights[i - 1] as number);
    if (i === first) d += `M${left} ${y}`;
    else if (before !== y) d += ` C${left + 5} ${before} ${left - 3} ${y} ${left + 8} ${y}`;
    d += ` H${left + COLUMN - (i === last ? 0 : 8)}`;
  }
  return d;
}

/** Heights of a strand's values; flat while a value being typed is not of its strand yet. */
export function heightsOf(strand: Strand, values: readonly (StrandValue | undefined)[]): readonly number[] {
  try {
    return relativeHeights(
      strand,
      values.map((v) => v ?? ""),
    );
  } catch (thrown) {
    if (!(thrown instanceof RangeError)) throw thrown;
    return values.map(() => 0);
  }
}
