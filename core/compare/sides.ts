import { type Counted, contrastBySessions, type SessionCells, type SessionContrast, type ShareSums, sumsOfSessions } from "../evidence";
import { type EvidenceTrial, evidenceOfSession } from "../record/evidence-scope";
import type { SessionRecord } from "../record/reduce";
import { counted, inHundredths, SIDE_WORDS } from "../words";

/** What one session showed on each side, rung by rung: the left first, the right second. */
export type SideSession = SessionCells;

/**
 * The trials of one session by rung and side. Left out is what says nothing of
 * a side: touches and first looks (they stand on no ladder), what was written
 * from memory, and blocks whose rung names one side.
 */
function cellsOf(trials: readonly EvidenceTrial[]): SideSession {
  interface Open {
    readonly stratum: string;
    readonly first: { met: number; of: number };
    readonly second: { met: number; of: number };
    readonly began: "first" | "second";
  }
  const cells = new Map<string, Open>();
  for (const { ladder, version, rung, side, outcome, comparable } of trials) {
    if (side === null || !comparable) continue;
    const stratum = JSON.stringify([ladder, version, rung]);
    const began = side === "L" ? ("first" as const) : ("second" as const);
    const cell = cells.get(stratum) ?? { stratum, first: { met: 0, of: 0 }, second: { met: 0, of: 0 }, began };
    const own = side === "L" ? cell.first : cell.second;
    own.of++;
    if (outcome === "met") own.met++;
    cells.set(stratum, cell);
  }
  return [...cells.values()];
}

/** What a session showed of its sides. */
export const cellsOfSession = (record: SessionRecord): SideSession => cellsOf(evidenceOfSession("", record, null));

/** The same of a list of trials, oldest first, session by session. */
export function cellsOfTrials(trials: readonly EvidenceTrial[]): SideSession[] {
  const bySession = new Map<string, EvidenceTrial[]>();
  for (const trial of trials) {
    const list = bySession.get(trial.session);
    if (list === undefined) bySession.set(trial.session, [trial]);
    else list.push(trial);
  }
  return [...bySession.values()].map(cellsOf);
}

/** Left and right of a horse, and whether one is behind. */
export interface SidePicture {
  /** Everything worked on each side, for the drawing: also what could not be compared. */
  readonly left: ShareSums;
  readonly right: ShareSums;
  readonly weaker: "L" | "R" | null;
  /** Of the test by sessions; null where nothing could be compared. */
  readonly p: number | null;
  readonly contrast: SessionContrast;
  readonly headline: string;
  readonly reason: string;
}

/** More often than in this share of sessions one side may not come first for a difference to be called. */
const MOST_FIRST = 0.8;

/** What came first too often for it to be told from warming up and tiring. */
export interface AlwaysFirst<T> {
  readonly what: T;
  readonly times: number;
  readonly of: number;
}

/**
 * What came first in more than eight of ten sessions that had both; null where
 * the order has varied, or nothing had both. Where nobody knows what came
 * first the order is not known to have varied.
 * @param firsts what came first in each such session; null where that is not known.
 */
export function alwaysFirst<T>(firsts: readonly (T | null)[]): AlwaysFirst<T> | null {
  if (firsts.length === 0) return null;
  const times = new Map<T | null, number>();
  for (const first of firsts) times.set(first, (times.get(first) ?? 0) + 1);
  const unknown = times.get(null) ?? 0;
  for (const [what, n] of times)
    if (what !== null && n + unknown > MOST_FIRST * firsts.length) return { what, times: n, of: firsts.length };
  return null;
}

const sumOf = (cells: SideSession, side: "first" | "second"): Counted =>
  cells.reduce((all, cell) => ({ met: all.met + cell[side].met, of: all.of + cell[side].of }), { met: 0, of: 0 });

/**
 * Which side is behind, for every screen that says so: differences of
 * sessions within rungs, tested by turning signs about, called at p < 0.01.
 * @param sessions oldest first.
 * @example sidePicture(sessions).headline // "No difference of sides shown yet"
 */
export function sidePicture(sessions: readonly SideSession[]): SidePicture {
  const left = sumsOfSessions(sessions.map((cells) => sumOf(cells, "first")));
  const right = sumsOfSessions(sessions.map((cells) => sumOf(cells, "second")));
  const contrast = contrastBySessions(sessions);
  const { behind, n, difference, sessionsMore, p } = contrast;
  const base = { left, right, p, contrast };
  if (difference === null)
    return {
      ...base,
      weaker: null,
      headline: "No sides to compare yet",
      reason: "No rung was asked on both sides in one session. Ask the same rung on the left and the right.",
    };
  const numbers = `On the same rungs left ${contrast.first.met} of ${contrast.first.of}, right ${contrast.second.met} of ${contrast.second.of}, compared ${counted(n, "time")}`;
  // Where one side always comes first, a horse that begins cold or tires makes the other look better or worse.
  const first = alwaysFirst(
    sessions.flatMap((cells) => {
      const both = cells.filter((cell) => cell.first.of > 0 && cell.second.of > 0);
      if (both.length === 0) return [];
      const leads = both.map(({ began }) => began ?? null);
      return [
        leads.filter((lead) => lead === "first").length * 2 > leads.length
          ? ("L" as const)
          : leads.includes("second")
            ? ("R" as const)
            : null,
      ];
    }),
  );
  if (behind !== null && first !== null) {
    const other = first.what === "L" ? "right" : "left";
    return {
      ...base,
      weaker: null,
      headline: "No side can be called weaker",
      reason: `The ${SIDE_WORDS[first.what]} came first in ${first.times} of ${first.of} sessions, so the side and warming up or tiring can't be told apart. Begin on the ${other} next time, and take turns.`,
    };
  }
  if (behind === null) {
    const more =
      sessionsMore === null ? "" : ` About ${counted(sessionsMore, "session")} more on both sides could show a gap of 20 points.`;
    return { ...base, weaker: null, headline: "No difference of sides shown yet", reason: `${numbers}.${more}` };
  }
  const weaker = behind === "first" ? "L" : "R";
  return {
    ...base,
    weaker,
    headline: weaker === "L" ? "Left is weaker" : "Right is weaker",
    reason: `${numbers}: the ${SIDE_WORDS[weaker]} ${Math.abs(inHundredths(difference))} points behind. Begin there and give it more.`,
  };
}

/** The weaker side in a line for a plan or a start, or an empty text where none is known. */
export const oneSideKnown = (weaker: "L" | "R" | null): string =>
  weaker === null ? "" : ` The ${SIDE_WORDS[weaker]} is the weaker side: begin there and give it more.`;
