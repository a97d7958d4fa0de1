import { numberPath } from "../strands";

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

/** One strand to its goal and then the next; a step of each in turn; or by the user's own legs. */
export type LayoutOrder = "one-by-one" | "in-turn" | "own";

/** One leg of the user's own order: this strand, up to this value. */
export interface LayoutLeg {
  readonly id: string;
  readonly to: number | string;
}

export interface LayoutOptions {
  readonly order: LayoutOrder;
  /** Share of the way back to their start by which the other strands are eased when a new one starts, 0 to 1; 0 eases nothing. */
  readonly easeOnNew?: number;
  /** For the order "own": the legs one after another. Strands that have not reached their goal by then finish in the order given. */
  readonly legs?: readonly LayoutLeg[];
}

export type LaidRung = Readonly<Record<string, number | string>>;

/** A ladder longer than this was asked for with a goal too far off. */
export const MOST_LAID_RUNGS = 400;

const SLACK = 1e-9;

/** Every value of a strand on its way from start to goal through the waypoints, one step after another. */
function pathThrough(strand: LayoutStrand, waypoints: readonly (number | string)[]): (number | string)[] {
  const stops = [strand.start, ...waypoints, strand.goal];
  const places = stops.map((stop) => (strand.kind === "levels" ? strand.levels.indexOf(String(stop)) : Number(stop)));
  const forward = (places[0] as number) <= (places.at(-1) as number);
  if (places.some((place, i) => i > 0 && (forward ? place < (places[i - 1] as number) : place > (places[i - 1] as number))))
    throw new RangeError(`layOut: ${strand.id}: its legs must go on towards the goal, none back or past it`);
  const path: (number | string)[] = [strand.start];
  for (let i = 1; i < stops.length; i++) path.push(...pathOf({ ...strand, start: stops[i - 1], goal: stops[i] } as LayoutStrand).slice(1));
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
  return numberPath(start, goal, { maxRatio, leastStep: least, wholeNumbers: whole });
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
  // From, to or across zero there is no geometric way; the steps themselves are counted.
  if (start * here <= 0) return Math.floor(at * (1 - share));
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
 * @example layOut(strands, { order: "one-by-one" }) // 2 of them
 */
export function layOut(strands: readonly LayoutStrand[], { order, easeOnNew = 0, legs = [] }: LayoutOptions): LaidRung[] {
  if (strands.length === 0) throw new RangeError("layOut: at least one strand is needed");
  if (new Set(strands.map(({ id }) => id)).size !== strands.length) throw new RangeError("layOut: each strand needs its own id");
  if (!(easeOnNew >= 0 && easeOnNew <= 1)) throw new RangeError("layOut: easeOnNew must be from 0 to 1");
  const own = order === "own" ? legs : [];
  const stray = own.find(({ id }) => !strands.some((strand) => strand.id === id));
  if (stray !== undefined) throw new RangeError(`layOut: a leg names ${stray.id}, which is no strand`);
  const walks: Walk[] = strands.map((strand) => ({
    strand,
    path: pathThrough(
      strand,
      own.filter(({ id, to }) => id === strand.id && to !== strand.goal && to !== strand.start).map(({ to }) => to),
    ),
    at: 0,
    reached: 0,
  }));
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
  for (const { id, to } of own) {
    const walk = walks.find(({ strand }) => strand.id === id) as Walk;
    for (const place = walk.path.indexOf(to); walk.at < place; ) step(walk);
  }
  if (order !== "in-turn") for (const walk of walks) while (walk.at < walk.path.length - 1) step(walk);
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
