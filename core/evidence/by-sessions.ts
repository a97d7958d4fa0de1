import type { Counted } from "./difference";
import { ORDER_VARIED, type PlacedSession, placeTakenOut } from "./place-out";
import { signFlip, type WeighedDifference } from "./sign-flip";

/** What one session showed of two conditions in one stratum (the same rung of the same ladder). */
export interface Cell {
  /** What must be alike for the two to be compared: ladder, version and rung. */
  readonly stratum: string;
  readonly first: Counted;
  readonly second: Counted;
  /** Which of the two was worked first in the session, or that they took turns; left out where nobody knows. */
  readonly began?: "first" | "second" | "turns";
}

/** The cells of one session. */
export type SessionCells = readonly Cell[];

/** One trial as a comparison within sessions needs it. */
export interface OrderedTrial {
  readonly stratum: string;
  /** Under the second of the two conditions. */
  readonly second: boolean;
  /** 1 for met and 0 for not, or what else is held against each other. */
  readonly worth: number;
}

/** On the mean, asks under one condition may come before those under the other by so many for the two to have taken turns. */
const TURNS_WITHIN = 1;

interface Open {
  met: number;
  of: number;
  /** Sum of the places at which they came. */
  at: number;
}

/** Which of the two came before the other as a whole, by the mean place of its asks. */
function beganOn(first: Open, second: Open): "first" | "second" | "turns" {
  if (second.of === 0) return "first";
  if (first.of === 0) return "second";
  const later = second.at / second.of - first.at / first.of;
  return Math.abs(later) <= TURNS_WITHIN ? "turns" : later > 0 ? "first" : "second";
}

/**
 * The trials of one session as its cells, with which condition came first in each.
 * @param trials in the order in which they were asked.
 * @example cellsInOrder(trials) // 2 of them
 */
export function cellsInOrder(trials: readonly OrderedTrial[]): Cell[] {
  const cells = new Map<string, { first: Open; second: Open }>();
  for (const { stratum, second, worth } of trials) {
    const cell = cells.get(stratum) ?? { first: { met: 0, of: 0, at: 0 }, second: { met: 0, of: 0, at: 0 } };
    const own = second ? cell.second : cell.first;
    own.at += cell.first.of + cell.second.of;
    own.of++;
    own.met += worth;
    cells.set(stratum, cell);
  }
  return [...cells].map(([stratum, { first, second }]) => ({
    stratum,
    first: { met: first.met, of: first.of },
    second: { met: second.met, of: second.of },
    began: beganOn(first, second),
  }));
}

/** Two conditions held against each other by sessions. */
export interface SessionContrast {
  /** Met and trials of each, over all sessions that were compared. */
  readonly first: Counted;
  readonly second: Counted;
  /** Differences that went in: sessions with both, and pairs of days with one each. */
  readonly n: number;
  /** Second less first, the place in the session taken out where the order has varied; null where nothing could be compared. */
  readonly difference: number | null;
  /** With the place in the session taken out. */
  readonly p: number | null;
  /** Which one is behind, or null where no difference is shown. */
  readonly behind: "first" | "second" | null;
  /** What would be called were the order of no account: then the order has to vary before anything is. */
  readonly orderBehind: boolean;
  /** In how many of them each came before the other as a whole. */
  readonly cameFirst: { readonly first: number; readonly second: number };
  /** How many more such sessions could show a gap of {@link GAP_ASKED_FOR}; null where one is shown, there are as many already, the order stands in the way, or nothing was compared. */
  readonly sessionsMore: number | null;
}

/** It is looked at again and again, so a difference is called one only at this p. */
export const CALLED_AT = 0.01;
/** Sessions it takes before any p can be as small, where each began as often as the other. */
export const FEWEST_SESSIONS = 9;
/** The gap between two shares that is worth a trainer's while (common practice, no source). */
export const GAP_ASKED_FOR = 0.2;
/** Normal points of a test at 0.01 that finds the gap eight times in ten. */
const CALLED_AND_FOUND = 2.5758 + 0.8416;

/** In which order two conditions were worked: as a whole, or turn about; null where nobody knows. */
type Order = "first" | "second" | "turns" | null;

interface Difference extends WeighedDifference {
  readonly first: Counted;
  readonly second: Counted;
  readonly order: Order;
  /** Within one session, or of two days. */
  readonly kind: "session" | "days";
}

const NONE: Counted = { met: 0, of: 0 };
const plus = (a: Counted, b: Counted): Counted => ({ met: a.met + b.met, of: a.of + b.of });

/** The difference of paired counts: strata weighed by n₁n₂/(n₁ + n₂). */
function differenceOf(
  pairs: readonly { readonly first: Counted; readonly second: Counted }[],
  order: Order,
  kind: Difference["kind"],
): Difference | null {
  let weight = 0;
  let sum = 0;
  let first = NONE;
  let second = NONE;
  for (const pair of pairs) {
    if (pair.first.of === 0 || pair.second.of === 0) continue;
    const w = (pair.first.of * pair.second.of) / (pair.first.of + pair.second.of);
    weight += w;
    sum += w * (pair.second.met / pair.second.of - pair.first.met / pair.first.of);
    first = plus(first, pair.first);
    second = plus(second, pair.second);
  }
  return weight === 0 ? null : { difference: sum / weight, weight, first, second, order, kind };
}

/** What most of a session's cells with both began on: one alone for the whole of it, turns otherwise. */
function orderOf(cells: SessionCells): Order {
  const began = cells.flatMap((cell) => (cell.first.of > 0 && cell.second.of > 0 ? [cell.began ?? null] : []));
  const most = (one: Order) => began.filter((other) => other === one).length * 2 > began.length;
  if (began.includes(null)) return null;
  return most("first") ? "first" : most("second") ? "second" : "turns";
}

/** Which single condition a session held, or null where it held both or none. */
function onlyOne(cells: SessionCells): "first" | "second" | null {
  const first = cells.some((cell) => cell.first.of > 0);
  const second = cells.some((cell) => cell.second.of > 0);
  return first === second ? null : first ? "first" : "second";
}

/**
 * Differences of a list of sessions, oldest first. A session with both gives
 * its own. Days with one each are paired with the next day of the other on a
 * same stratum, the pairs turning about (first before second, then second
 * before first), so that a horse that gets better from day to day makes
 * neither look better.
 */
function differencesOf(sessions: readonly SessionCells[]): Difference[] {
  const out: Difference[] = [];
  let open = null as { readonly cells: SessionCells; readonly holds: "first" | "second" } | null;
  let begins = null as "first" | "second" | null;
  for (const cells of sessions) {
    const own = differenceOf(cells, orderOf(cells), "session");
    if (own !== null) {
      out.push(own);
      continue;
    }
    const holds = onlyOne(cells);
    if (holds === null) continue;
    if (open !== null && open.holds !== holds) {
      const [a, b] = holds === "second" ? [open.cells, cells] : [cells, open.cells];
      const pair = differenceOf(
        a.map(({ stratum, first }) => ({ first, second: b.find((cell) => cell.stratum === stratum)?.second ?? NONE })),
        open.holds,
        "days",
      );
      if (pair !== null) {
        out.push(pair);
        begins = open.holds === "first" ? "second" : "first";
        open = null;
        continue;
      }
    }
    // The later of two days alike lies nearer to what it will be paired with; a pair begins on the side whose turn it is.
    if (begins === null || holds === begins || open?.holds === holds) open = { cells, holds };
  }
  return out;
}

/** The two as things that came one after the other. Where nobody knows the order it is not known to have varied. */
const placed = ({ difference, weight, order, kind }: Difference): PlacedSession => {
  const first = { what: "first", difference: -difference, weight };
  const second = { what: "second", difference, weight };
  return { inOrder: order === "second" ? [second, first] : [first, second], tookTurns: order === "turns", kind };
};

/**
 * Whether one of two conditions (sides, kit, handlers) is behind, by
 * sessions: trials of one session resemble each other, so each session is one
 * difference, within rungs. A horse that begins cold or tires makes what comes
 * first look worse or better, so the place in the session is taken out
 * ({@link placeTakenOut}), which needs both orders. Called at p < 0.01, since
 * it is looked at again and again, which takes nine sessions; simulated rates
 * stand in docs/measures.md.
 * @param sessions oldest first.
 * @example contrastBySessions(sessions).behind // null: no difference shown yet
 */
export function contrastBySessions(sessions: readonly SessionCells[]): SessionContrast {
  const differences = differencesOf(sessions);
  const first = differences.reduce((all, one) => plus(all, one.first), NONE);
  const second = differences.reduce((all, one) => plus(all, one.second), NONE);
  const out = placeTakenOut(differences.map(placed), "second");
  const came = (which: Order) => differences.filter(({ order }) => order === which).length;
  const cameFirst = { first: came("first"), second: came("second") };
  if (out === null)
    return { first, second, n: 0, difference: null, p: null, behind: null, orderBehind: false, cameFirst, sessionsMore: null };
  const weight = differences.reduce((sum, one) => sum + one.weight, 0);
  const asItCame = differences.reduce((sum, one) => sum + one.weight * one.difference, 0) / weight;
  const difference = out.difference ?? asItCame;
  // What the counts beside it show the other way round is not called on them.
  const behind = out.p < CALLED_AT && difference * asItCame > 0 ? (difference > 0 ? "first" : "second") : null;
  const orderBehind = behind === null && out.kept < ORDER_VARIED && (signFlip(differences)?.p ?? 1) < CALLED_AT;
  return {
    first,
    second,
    n: out.n,
    difference,
    p: out.p,
    behind,
    orderBehind,
    cameFirst,
    sessionsMore: behind === null && !orderBehind ? sessionsMore(differences) : null,
  };
}

/** How many sessions more, like those so far, could show the gap asked for. */
function sessionsMore(differences: readonly Difference[]): number | null {
  const n = differences.length;
  // Where sessions are few their own spread says little; that of independent trials is the least it can be.
  const weight = differences.reduce((sum, one) => sum + one.weight, 0) / n;
  const mean = differences.reduce((sum, one) => sum + one.difference * one.weight, 0) / (n * weight);
  const spread = n < 2 ? 0 : differences.reduce((sum, one) => sum + (one.difference - mean) ** 2, 0) / (n - 1);
  const least = 0.25 / weight;
  const variance = n < 4 ? Math.max(spread, least) : spread;
  const needed = Math.max(FEWEST_SESSIONS, Math.ceil((variance * CALLED_AND_FOUND ** 2) / GAP_ASKED_FOR ** 2));
  return needed > n ? needed - n : null;
}
