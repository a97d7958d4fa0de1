import type { SessionRecord, TimedFact } from "./reduce";
import type { SignalClass } from "./signals";
import { endOfWorkMs } from "./time";
import type { TimeLine } from "./time-line";
import type { Trial } from "./trial";

/** What a ribbon draws of a trial. */
export type RibbonTrial = Pick<
  Trial,
  | "number"
  | "blockIndex"
  | "askMs"
  | "endMs"
  | "answerMs"
  | "markMs"
  | "feedMs"
  | "outcome"
  | "side"
  | "phase"
  | "latencySeconds"
  | "shortfall"
  | "overridden"
  | "marked"
  | "reinforcers"
  | "reinforcerKinds"
  | "phaseSteps"
  | "eventId"
>;

/** What a ribbon draws of a session. */
export interface RibbonFacts extends Pick<SessionRecord, "blocks" | "openAsk" | "finishMs"> {
  readonly trials: readonly RibbonTrial[];
  readonly facts: readonly TimedFact[];
  /** Wrong choices are left out where the ribbon is a small one. */
  readonly timeLine: Pick<TimeLine, "breaks" | "departures"> & Partial<Pick<TimeLine, "wrongs">>;
}

/** A session's ribbon in small, for lists. */
export interface CompactRibbon extends RibbonFacts {
  /** Up to where the line goes, in milliseconds from the start of work. */
  readonly endMs: number;
}

/** A place on the line is one of so many: two letters. */
const PLACES = 64 * 64 - 1;
const LETTERS = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz-_";
const OUTCOMES = ["met", "try", "miss", "refused"] as const;
const SIDES = [null, "L", "R"] as const;
const CLASSES: readonly SignalClass[] = ["ease", "tension", "danger", "pain"];
/** Answers nearer to one another than such a share of the line are drawn as one; the first that leaves few enough. */
const NEAREST = [1 / 300, 1 / 150, 1 / 80];
const MOST_TRIALS = 80;
const MOST_SIGNS = 30;
const MOST_SPANS = 12;
const TRIAL_LETTERS = 9;

/** The longest a drawing can be. */
export const DRAWING_MOST_CHARACTERS = 8 + MOST_TRIALS * TRIAL_LETTERS + MOST_SIGNS * 3 + 2 * MOST_SPANS * 6 + 4;

const letter = (n: number) => LETTERS.charAt(Math.min(63, Math.max(0, Math.round(n))));
const place = (share: number) => {
  const n = Math.round(Math.min(1, Math.max(0, share)) * PLACES);
  return letter(n >> 6) + letter(n & 63);
};

/** A finer place, in three letters: a rest is told in seconds, and the same ones as elsewhere. */
const FINE_PLACES = 64 ** 3 - 1;
const finePlace = (share: number) => {
  const n = Math.round(Math.min(1, Math.max(0, share)) * FINE_PLACES);
  return letter(n >> 12) + letter((n >> 6) & 63) + letter(n & 63);
};

interface Drawn {
  readonly trial: Trial;
  readonly askMs: number;
  endMs: number;
  top: number;
  marked: boolean;
  fed: boolean;
  otherwise: boolean;
}

function drawnWith(trials: readonly Trial[], nearestMs: number): Drawn[] {
  const drawn: Drawn[] = [];
  for (const trial of trials) {
    const top = Math.max(1, ...trial.phaseSteps.map((step) => step.phase));
    const more = {
      marked: trial.markMs !== null || trial.marked === true,
      fed: trial.feedMs !== null || (trial.reinforcers ?? 0) > 0,
      otherwise: trial.reinforcerKinds.length > 0,
    };
    const last = drawn.at(-1);
    if (last === undefined || trial.askMs - last.askMs >= nearestMs) {
      drawn.push({ trial, askMs: trial.askMs, endMs: trial.endMs, top, ...more });
      continue;
    }
    last.endMs = Math.max(last.endMs, trial.endMs);
    last.top = Math.max(last.top, top);
    last.marked ||= more.marked;
    last.fed ||= more.fed;
    last.otherwise ||= more.otherwise;
  }
  return drawn;
}

/**
 * A session's ribbon in a few hundred characters, to be kept beside its sums.
 * Of answers too near to one another the first is drawn, as long and as clear as all of them.
 * @example readCompactRibbon(compactRibbonOf(record)).trials.length
 */
export function compactRibbonOf(record: SessionRecord): string {
  const endMs = Math.max(1, Math.round(endOfWorkMs(record) * 1.01 + 1000));
  const at = (ms: number) => place(ms / endMs);
  const drawn = NEAREST.map((share) => drawnWith(record.trials, share * endMs)).find((list) => list.length <= MOST_TRIALS);
  const trials = (drawn ?? drawnWith(record.trials, endMs / MOST_TRIALS)).map(
    ({ trial, askMs, endMs: until, top, marked, fed, otherwise }) => {
      const long = until - askMs;
      const answer = trial.answerMs === null || long <= 0 ? 63 : ((trial.answerMs - askMs) / long) * 62;
      const kind = OUTCOMES.indexOf(trial.outcome) * 3 + SIDES.indexOf(trial.side);
      const given = Number(marked) * 4 + Number(fed) * 2 + Number(otherwise);
      return at(askMs) + at(until) + letter(trial.phaseSteps[0]?.phase ?? 1) + letter(top) + letter(answer) + letter(kind) + letter(given);
    },
  );
  const signs = record.facts
    .filter((fact) => fact.type === "signal" && fact.ms >= 0 && fact.payload.class !== "count")
    .slice(0, MOST_SIGNS)
    .map((fact) => at(fact.ms) + letter(fact.type === "signal" ? CLASSES.indexOf(fact.payload.class) : 0));
  const spans = (list: readonly { readonly startMs: number; readonly endMs: number | null }[]) =>
    list
      .slice(0, MOST_SPANS)
      .map(({ startMs, endMs: until }) => finePlace(startMs / endMs) + finePlace((until ?? endMs) / endMs))
      .join("");
  return [endMs.toString(36), trials.join(""), signs.join(""), spans(record.timeLine.breaks), spans(record.timeLine.departures)].join(".");
}

const pieces = (text: string, length: number) => text.match(new RegExp(`.{${length}}`, "g")) ?? [];
const valueAt = (text: string, at: number) => Math.max(0, LETTERS.indexOf(text.charAt(at)));

const fineValueAt = (text: string, at: number) => (valueAt(text, at) * 64 + valueAt(text, at + 1)) * 64 + valueAt(text, at + 2);

/**
 * Reads what {@link compactRibbonOf} wrote, as a ribbon draws it: the steps of a cue stand evenly between its first phase and its clearest.
 * @example readCompactRibbon(drawing) // { endMs: 102000, openAsk: null, finishMs: 102000, … }
 */
export function readCompactRibbon(drawing: string): CompactRibbon {
  const [length = "1", trials = "", signs = "", breaks = "", away = ""] = drawing.split(".");
  const endMs = Number.parseInt(length, 36) || 1;
  const msAt = (text: string, at: number) => ((valueAt(text, at) * 64 + valueAt(text, at + 1)) / PLACES) * endMs;
  const fineAt = (text: string, at: number) => (fineValueAt(text, at) / FINE_PLACES) * endMs;
  const spansOf = (text: string) => pieces(text, 6).map((piece) => ({ startMs: fineAt(piece, 0), endMs: fineAt(piece, 3) }));
  return {
    endMs,
    blocks: [],
    openAsk: null,
    finishMs: endMs,
    trials: pieces(trials, TRIAL_LETTERS).map((piece, i): RibbonTrial => {
      const [askMs, until] = [msAt(piece, 0), msAt(piece, 2)];
      const [first, top, answer, kind, given] = [4, 5, 6, 7, 8].map((at) => valueAt(piece, at)) as [number, number, number, number, number];
      const steps = Math.max(0, top - first);
      return {
        number: i + 1,
        blockIndex: null,
        askMs,
        endMs: until,
        answerMs: answer === 63 ? null : askMs + ((until - askMs) * answer) / 62,
        markMs: null,
        feedMs: null,
        outcome: OUTCOMES[Math.floor(kind / 3)] ?? "miss",
        side: SIDES[kind % 3] ?? null,
        phase: null,
        latencySeconds: null,
        shortfall: null,
        overridden: false,
        marked: (given & 4) !== 0,
        reinforcers: (given & 2) !== 0 ? 1 : 0,
        reinforcerKinds: (given & 1) !== 0 ? ["other"] : [],
        phaseSteps: Array.from({ length: steps + 1 }, (_, k) => ({ ms: askMs + ((until - askMs) * k) / (steps + 1), phase: first + k })),
        eventId: `t${i}`,
      };
    }),
    facts: pieces(signs, 3).map((piece, i) => {
      const kind = CLASSES[valueAt(piece, 2)] ?? "tension";
      return { id: `s${i}`, type: "signal", recorder: "", ms: msAt(piece, 0), payload: { name: kind, class: kind } };
    }),
    timeLine: { breaks: spansOf(breaks), departures: spansOf(away).map((span) => ({ ...span, from: null, to: null })) },
  };
}
