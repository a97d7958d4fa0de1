import { type SidePicture, sidePicture } from "../compare";
import { cellsInOrder, type SessionCells } from "../evidence";
import { counted } from "../words";
import { bySession, type Past, type PastTrial } from "./past";

/** A difference in how the sides were worked that may lie behind one in their answers. */
export interface UnlikeConditions {
  readonly sentence: string;
}

/** The sides of one behaviour, or of all. */
export interface SidesOverTime {
  readonly picture: SidePicture;
  /** Trials more, both sides together, that could show a gap of 20 points; null where one is shown or nothing was compared. */
  readonly trialsMore: number | null;
  readonly unlike: readonly string[];
}

const counts = ({ comparable, side, ladder, version, rung }: PastTrial) =>
  comparable && side !== null && ladder !== null && version !== null && rung !== null;

/**
 * What each session showed on each side, rung by rung: as `cellsOfTrials`, from trials of a past.
 * @example sideCells(past) // 2 of them
 */
export function sideCells(past: Past): SessionCells[] {
  return bySession(past).flatMap((trials) => {
    const cells = cellsInOrder(
      trials.filter(counts).map(({ ladder, version, rung, side, outcome }) => ({
        stratum: JSON.stringify([ladder, version, rung]),
        second: side === "R",
        worth: outcome === "met" ? 1 : 0,
      })),
    );
    return cells.length === 0 ? [] : [cells];
  });
}

/** A share this far from that of the other side is said. */
const FAR_APART = 0.5;

function unlikeConditions(past: Past, trials: readonly PastTrial[], orderSaid: boolean): string[] {
  const left = trials.filter(({ side }) => side === "L");
  const right = trials.filter(({ side }) => side === "R");
  if (left.length === 0 || right.length === 0) return [];
  const words: string[] = [];
  const share = (list: readonly PastTrial[], is: (trial: PastTrial) => boolean) => list.filter(is).length / list.length;
  const sessions = past.sessions.filter((_, i) => trials.some(({ session }) => session === i));
  const begun = sessions.filter(({ facts }) => facts.firstSide === "L").length;
  const both = sessions.filter(({ facts }) => facts.firstSide !== null).length;
  if (!orderSaid && both >= 4 && (begun / both > 0.8 || begun / both < 0.2))
    words.push(
      `${begun / both > 0.8 ? "The left" : "The right"} came first in ${Math.max(begun, both - begun)} of ${counted(both, "session")}.`,
    );
  for (const [name, of] of [
    ["handler", ({ handler }: PastTrial) => handler],
    ["place", ({ session }: PastTrial) => past.sessions[session]?.place ?? null],
  ] as const) {
    const values = new Set(trials.map(of).filter((value) => value !== null));
    for (const value of values)
      if (Math.abs(share(left, (trial) => of(trial) === value) - share(right, (trial) => of(trial) === value)) >= FAR_APART) {
        words.push(`The sides were mostly worked ${name === "place" ? "at different places" : "by different people"}.`);
        break;
      }
  }
  const clearer = (list: readonly PastTrial[]) => {
    const phases = list.flatMap(({ phase }) => (phase === null ? [] : [phase]));
    return phases.length === 0 ? null : phases.reduce((sum, phase) => sum + phase, 0) / phases.length;
  };
  const [a, b] = [clearer(left), clearer(right)];
  if (a !== null && b !== null && Math.abs(a - b) >= FAR_APART)
    words.push(
      `The ${a > b ? "left" : "right"} was asked more clearly (mean phase ${Math.max(a, b).toFixed(1)} against ${Math.min(a, b).toFixed(1)}).`,
    );
  if (Math.min(left.length, right.length) * 3 < Math.max(left.length, right.length))
    words.push(`One side holds ${Math.max(left.length, right.length)} of ${left.length + right.length} trials.`);
  return words;
}

/**
 * Left against right over a span: the picture every screen goes by, how much
 * more would show a gap of 20 points, and where the sides were not worked
 * alike. Of all behaviours together, or of the one the past holds.
 * @example sidesOverTime(past) // { trialsMore: 429, … }
 */
export function sidesOverTime(past: Past): SidesOverTime {
  const cells = sideCells(past);
  const picture = sidePicture(cells);
  const { sessionsMore, n, first, second } = picture.contrast;
  const a = n === 0 ? null : (first.of + second.of) / n;
  return {
    picture,
    trialsMore: sessionsMore === null || a === null ? null : Math.round(sessionsMore * a),
    unlike: unlikeConditions(past, past.trials.filter(counts), picture.contrast.orderBehind),
  };
}
