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

/** About how wide a letter is, as a share of the size of its font. */
const LETTER = 0.52;
const SIZE = 14;
const LEAST_SIZE = 9.5;

/** A label set in its column: no word of it is cut. */
export interface LabelLines {
  readonly lines: readonly string[];
  readonly size: number;
}

/**
 * Sets a label inside a width: on one line, on two where it has to, and smaller
 * where a line is still too long. Words are never cut off.
 * @param width in the chart's own units.
 * @example labelLines("at the shoulder", 78).lines // ["at the", "shoulder"]
 */
export function labelLines(words: string, width: number, size = SIZE): LabelLines {
  const fits = (line: string, at: number) => line.length * at * LETTER <= width;
  if (fits(words, size)) return { lines: [words], size };
  const parts = words.split(" ");
  // The split that leaves the shortest longer line.
  const splits = parts.slice(1).map((_, i) => [parts.slice(0, i + 1).join(" "), parts.slice(i + 1).join(" ")]);
  const longest = (lines: readonly string[]) => Math.max(...lines.map(({ length }) => length));
  const lines = splits.reduce((best, split) => (longest(split) < longest(best) ? split : best), [words]);
  return { lines, size: Math.max(LEAST_SIZE, Math.min(size, width / (longest(lines) * LETTER))) };
}

/** How many columns from one on hold the same value: its label may run on over them. */
export function columnsAlike(values: readonly unknown[], from: number): number {
  let to = from + 1;
  while (to < values.length && values[to] === values[from]) to++;
  return to - from;
}

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
