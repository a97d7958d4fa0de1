import type { Counted } from "./difference";
import { signFlip, type WeighedDifference } from "./sign-flip";

/** What one session showed of two conditions in one stratum (the same rung of the same ladder). */
export interface Cell {
  /** What must be alike for the two to be compared: ladder, version and rung. */
  readonly stratum: string;
  readonly first: Counted;
  readonly second: Counted;
  /** Which of the two was worked first in the session; left out where nobody knows. */
  readonly began?: "first" | "second";
}

/** The cells of one session. */
export type SessionCells = readonly Cell[];

/** Two conditions held against each other by sessions. */
export interface SessionContrast {
  /** Met and trials of each, over all sessions that were compared. */
  readonly first: Counted;
  readonly second: Counted;
  /** Differences that went in: sessions with both, and pairs of days with one each. */
  readonly n: number;
  /** Weighted mean of second less first; null where nothing could be compared. */
  readonly difference: number | null;
  readonly p: number | null;
  /** Which one is behind, or null where no difference is shown. */
  readonly behind: "first" | "second" | null;
  /** How many more such sessions could show a gap of {@link GAP_ASKED_FOR}; null where one is shown, or nothing was compared. */
  readonly sessionsMore: number | null;
}

/** It is looked at again and again, so a difference is called one only at this p. */
export const CALLED_AT = 0.01;
/** Sessions it takes before any p can be as small. */
export const FEWEST_SESSIONS = 8;
/** The gap between two shares that is worth a trainer's while (common practice, no source). */
export const GAP_ASKED_FOR = 0.2;
/** Normal points of a test at 0.01 that finds the gap eight times in ten. */
const CALLED_AND_FOUND = 2.5758 + 0.8416;

interface Difference extends WeighedDifference {
  readonly first: Counted;
  readonly second: Counted;
}

const NONE: Counted = { met: 0, of: 0 };
const plus = (a: Counted, b: Counted): Counted => ({ met: a.met + b.met, of: a.of + b.of });

/** The difference of paired counts: strata weighed by n₁n₂/(n₁ + n₂). */
function differenceOf(pairs: readonly { readonly first: Counted; readonly second: Counted }[]): Difference | null {
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
  return weight === 0 ? null : { difference: sum / weight, weight, first, second };
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
    const own = differenceOf(cells);
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

/**
 * Whether one of two conditions (sides, zones, kit, handlers) is behind, by
 * sessions: trials of one session resemble each other, so each session is one
 * difference, within rungs, and the differences are tested by turning their
 * signs about. Called at p < 0.01, since it is looked at again and again,
 * which takes eight sessions; simulated rates stand in docs/measures.md.
 * @param sessions oldest first.
 * @example contrastBySessions(sessions).behind // null: no difference shown yet
 */
export function contrastBySessions(sessions: readonly SessionCells[]): SessionContrast {
  const differences = differencesOf(sessions);
  const test = signFlip(differences);
  const first = differences.reduce((all, one) => plus(all, one.first), NONE);
  const second = differences.reduce((all, one) => plus(all, one.second), NONE);
  if (test === null) return { first, second, n: 0, difference: null, p: null, behind: null, sessionsMore: null };
  const behind = test.p < CALLED_AT ? (test.mean > 0 ? "first" : "second") : null;
  return {
    first,
    second,
    n: test.n,
    difference: test.mean,
    p: test.p,
    behind,
    sessionsMore: behind === null ? sessionsMore(differences) : null,
  };
}

/** How many sessions more, like those so far, could show the gap asked for. */
function sessionsMore(differences: readonly Difference[]): number {
  const n = differences.length;
  // Where sessions are few their own spread says little; that of independent trials is the least it can be.
  const weight = differences.reduce((sum, one) => sum + one.weight, 0) / n;
  const mean = differences.reduce((sum, one) => sum + one.difference * one.weight, 0) / (n * weight);
  const spread = n < 2 ? 0 : differences.reduce((sum, one) => sum + (one.difference - mean) ** 2, 0) / (n - 1);
  const least = 0.25 / weight;
  const variance = n < 4 ? Math.max(spread, least) : spread;
  const needed = Math.max(FEWEST_SESSIONS, Math.ceil((variance * CALLED_AND_FOUND ** 2) / GAP_ASKED_FOR ** 2));
  return Math.max(1, needed - n);
}
