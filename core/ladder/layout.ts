/** A strand to be laid out from a start to a goal; the goal is the harder end. */
export type LayoutStrand =
  | {
      readonly id: string;
      readonly kind: "number";
      readonly start: number;
      readonly goal: number;
      /** Most a step may grow, as a ratio, 2 by default. */
      readonly maxRatio?: number;
      /** The step from zero, or down to it, in the strand's unit; 1 by default. */
      readonly least?: number;
      readonly whole?: boolean;
    }
  | { readonly id: string; readonly kind: "levels"; readonly levels: readonly string[]; readonly start: string; readonly goal: string };

export type LayoutOrder = "one-by-one" | "in-turn";

export interface LayoutOptions {
  readonly order: LayoutOrder;
  /** Share of the way back to their start by which the other strands are eased when a new one starts, 0 to 1; 0 eases nothing. */
  readonly easeOnNew?: number;
}

export type LaidRung = Readonly<Record<string, number | string>>;

/** A ladder longer than this was asked for with a goal too far off. */
export const MOST_LAID_RUNGS = 400;

const SENSIBLE = [1, 1.2, 1.5, 2, 2.5, 3, 4, 5, 6, 8] as const;
const SLACK = 1e-9;

/** Whether a value lies between two others, both included, to rounding. */
const between = (value: number, low: number, high: number) => value >= low * (1 - 1e-12) && value <= high * (1 + 1e-12);

/**
 * A value near the wanted one, between two bounds: a sensible one (1, 1.2, 1.5,
 * 2, 2.5, 3, 4, 5, 6, 8 times a power of ten) where one fits, otherwise the wanted one with
 * as few digits as the bounds allow.
 */
function sensible(wanted: number, low: number, high: number): number {
  const power = 10 ** Math.floor(Math.log10(wanted));
  const fitting = [power / 10, power, power * 10]
    .flatMap((p) => SENSIBLE.map((step) => Number((step * p).toPrecision(6))))
    .filter((value) => between(value, low, high))
    .sort((a, b) => Math.abs(Math.log(a / wanted)) - Math.abs(Math.log(b / wanted)));
  if (fitting[0] !== undefined) return fitting[0];
  for (let digits = 2; digits <= 9; digits++) {
    const value = Number(wanted.toPrecision(digits));
    if (between(value, low, high)) return value;
  }
  return wanted;
}

type NumberStrand = Extract<LayoutStrand, { kind: "number" }>;

/** Magnitudes from low to high, both there, in as few steps as the rule allows, spread evenly and rounded to sensible values. */
function climb(low: number, high: number, strand: NumberStrand): number[] {
  const { maxRatio = 2, least = 1, whole = false } = strand;
  if (high === low) return [low];
  const path = [low];
  let from = low;
  if (from === 0) {
    from = Math.min(high, least);
    path.push(from);
  }
  if (whole) {
    while (from < high) {
      from = from < 4 ? from + 1 : Math.min(high, Math.max(from + 1, Math.floor(from * maxRatio)));
      path.push(from);
    }
    return path;
  }
  const steps = Math.ceil(Math.log(high / from) / Math.log(maxRatio) - SLACK);
  const ratio = (high / from) ** (1 / Math.max(1, steps));
  let last = from;
  for (let i = 1; i < steps; i++) {
    const even = from * ratio ** i;
    // Not so low that the goal could no longer be reached in the steps left, not so high that this step is too large.
    const low = Math.max(last * (1 + 1e-6), high / maxRatio ** (steps - i));
    last = sensible(Math.min(Math.max(even, low), last * maxRatio), low, Math.min(high, last * maxRatio));
    path.push(last);
  }
  if (last < high) path.push(high);
  return path;
}

/** Every value of a strand on its way from start to goal, one step after another. */
function pathOf(strand: LayoutStrand): (number | string)[] {
  if (strand.kind === "levels") {
    const from = strand.levels.indexOf(strand.start);
    const to = strand.levels.indexOf(strand.goal);
    if (from < 0 || to < 0) throw new RangeError(`layOut: ${strand.id}: start and goal must be among its levels`);
    return from <= to ? strand.levels.slice(from, to + 1) : strand.levels.slice(to, from + 1).reverse();
  }
  const { start, goal, whole = false, maxRatio = 2, least = 1 } = strand;
  if (![start, goal].every(Number.isFinite)) throw new RangeError(`layOut: ${strand.id}: start and goal must be numbers`);
  if (whole && !(Number.isInteger(start) && Number.isInteger(goal))) throw new RangeError(`layOut: ${strand.id}: whole numbers are needed`);
  if (!(maxRatio > 1)) throw new RangeError(`layOut: ${strand.id}: the largest ratio must be above 1`);
  if (!(least > 0)) throw new RangeError(`layOut: ${strand.id}: the least step must be above 0`);
  if (start < 0 || goal < 0) throw new RangeError(`layOut: ${strand.id}: 0 or more is needed`);
  return start <= goal ? climb(start, goal, strand) : climb(goal, start, strand).reverse();
}

interface Walk {
  readonly strand: LayoutStrand;
  readonly path: readonly (number | string)[];
  /** Where on its path it stands, and how far it once was. */
  at: number;
  reached: number;
}

/** Where on its path a strand goes when it is eased: geometrically back by a share, to the easier value where it falls between two. */
function easedPlace({ path, strand, at }: Walk, share: number): number {
  if (share <= 0 || at === 0) return at;
  if (strand.kind === "levels") return Math.floor(at * (1 - share));
  const start = path[0] as number;
  const here = path[at] as number;
  // From or to zero there is no geometric way; the steps themselves are counted.
  if (start === 0 || here === 0) return Math.floor(at * (1 - share));
  const wanted = here * (start / here) ** share;
  let place = at;
  const easier = (value: number) => (start <= here ? value <= wanted + SLACK : value >= wanted - SLACK);
  while (place > 0 && !easier(path[place] as number)) place--;
  return place;
}

/**
 * Lays a ladder out from a start and a goal for each strand. The first rung is
 * the start, the last the goal; neighbours differ by at most one harder strand,
 * no number steps over its ratio, no level is skipped, and no strand passes its
 * goal. When a strand first leaves its start, the others may be eased once; they
 * climb back a rung at a time before it takes its second step.
 * Cost grows with the rungs laid.
 * @throws RangeError where a strand cannot be laid out, two share an id, or more than {@link MOST_LAID_RUNGS} rungs would be needed.
 */
export function layOut(strands: readonly LayoutStrand[], { order, easeOnNew = 0 }: LayoutOptions): LaidRung[] {
  if (strands.length === 0) throw new RangeError("layOut: at least one strand is needed");
  if (new Set(strands.map(({ id }) => id)).size !== strands.length) throw new RangeError("layOut: each strand needs its own id");
  if (!(easeOnNew >= 0 && easeOnNew <= 1)) throw new RangeError("layOut: easeOnNew must be from 0 to 1");
  const walks: Walk[] = strands.map((strand) => ({ strand, path: pathOf(strand), at: 0, reached: 0 }));
  const rungs: LaidRung[] = [];
  const put = () => {
    if (rungs.length >= MOST_LAID_RUNGS) throw new RangeError(`layOut: more than ${MOST_LAID_RUNGS} rungs; bring the goal nearer`);
    rungs.push(Object.fromEntries(walks.map(({ strand, path, at }) => [strand.id, path[at] as number | string])));
  };
  const step = (walk: Walk) => {
    const others = walks.filter((one) => one !== walk);
    const fresh = walk.reached === 0;
    walk.at++;
    walk.reached = Math.max(walk.reached, walk.at);
    // Easing others on the very rung the new one starts makes nothing harder but the new one.
    if (fresh) for (const other of others) other.at = easedPlace(other, easeOnNew);
    put();
    for (const other of others)
      while (other.at < other.reached) {
        other.at++;
        put();
      }
  };
  put();
  if (order === "one-by-one") for (const walk of walks) while (walk.at < walk.path.length - 1) step(walk);
  else
    for (let moved = true; moved; ) {
      moved = false;
      for (const walk of walks) {
        if (walk.at >= walk.path.length - 1) continue;
        step(walk);
        moved = true;
      }
    }
  return rungs;
}
