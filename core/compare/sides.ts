import {
  type Counted,
  cellsInOrder,
  contrastBySessions,
  type SessionCells,
  type SessionContrast,
  type ShareSums,
  sumsOfSessions,
} from "../evidence";
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
  return cellsInOrder(
    trials.flatMap(({ ladder, version, rung, side, outcome, comparable }) =>
      side === null || !comparable
        ? []
        : [{ stratum: JSON.stringify([ladder, version, rung]), second: side === "R", worth: outcome === "met" ? 1 : 0 }],
    ),
  );
}

/** What a session showed of its sides. @example cellsOfSession(record) // 2 of them */
export const cellsOfSession = (record: SessionRecord): SideSession => cellsOf(evidenceOfSession("", record, null));

/** The same of a list of trials, oldest first, session by session. @example cellsOfTrials(trials) // 2 of them */
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

const sumOf = (cells: SideSession, side: "first" | "second"): Counted =>
  cells.reduce((all, cell) => ({ met: all.met + cell[side].met, of: all.of + cell[side].of }), { met: 0, of: 0 });

/** Why a difference that is there is not called: what came first, and what would tell. */
function orderReason({ cameFirst: { first, second }, n }: SessionContrast): string {
  const apart = "warming up or tiring can't be told apart.";
  if (first === second) return `The side and ${apart} Begin on each side as often.`;
  const [side, other] = first > second ? ["left", "right"] : ["right", "left"];
  return `The ${side} came first in ${Math.max(first, second)} of ${counted(n, "session")}, so the side and ${apart} Begin on the ${other} next time, and take turns.`;
}

/**
 * Which side is behind, for every screen that says so: differences of
 * sessions within rungs, what comes first taken out, called at p < 0.01.
 * @param sessions oldest first.
 * @example sidePicture(sessions).headline // "No difference of sides shown yet"
 */
export function sidePicture(sessions: readonly SideSession[]): SidePicture {
  const left = sumsOfSessions(sessions.map((cells) => sumOf(cells, "first")));
  const right = sumsOfSessions(sessions.map((cells) => sumOf(cells, "second")));
  const contrast = contrastBySessions(sessions);
  const { behind, orderBehind, n, difference, sessionsMore, p } = contrast;
  const base = { left, right, p, contrast };
  if (difference === null)
    return {
      ...base,
      weaker: null,
      headline: "No sides to compare yet",
      reason: "No rung was asked on both sides in one session. Ask the same rung on the left and the right.",
    };
  const numbers = `On the same rungs left ${contrast.first.met} of ${contrast.first.of}, right ${contrast.second.met} of ${contrast.second.of}, compared ${counted(n, "time")}`;
  if (orderBehind) return { ...base, weaker: null, headline: "No side can be called weaker", reason: orderReason(contrast) };
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
    reason: `${numbers}: the ${SIDE_WORDS[weaker]} ${Math.abs(inHundredths(difference))} points behind. Give it more, and take turns in which side begins.`,
  };
}

/** The weaker side in a line for a plan or a start, or an empty text where none is known. @example oneSideKnown(null) // "" */
export const oneSideKnown = (weaker: "L" | "R" | null): string =>
  weaker === null ? "" : ` The ${SIDE_WORDS[weaker]} is the weaker side: give it more, and take turns in which side begins.`;
