import { meetsPressure } from "../ladder";
import { endOfWorkMs, type SessionRecord, secondsWithoutBreaks, type WrongChoice, workSeconds } from "../record";

/** Wrong choices of one kind, or that met one thing. */
export interface WrongKind {
  readonly name: string | null;
  readonly count: number;
  /** Seconds of those that were timed, and how many were. */
  readonly seconds: number;
  readonly timed: number;
}

/** What a session's wrong choices come to. Seconds of working time. */
export interface WrongChoices {
  readonly count: number;
  readonly perTenMinutes: number | null;
  readonly seconds: number;
  readonly timed: number;
  /** Of those that met pressure. */
  readonly pressed: number;
  readonly pressureSeconds: number;
  readonly byChoice: readonly WrongKind[];
  readonly byAnswer: readonly WrongKind[];
  readonly byBegin: readonly WrongKind[];
  readonly halves: WrongHalves | null;
}

/** How many came in the first half of the working time and how many in the second. */
export interface WrongHalves {
  readonly first: number;
  readonly second: number;
}

const lengthSeconds = (choice: WrongChoice, record: SessionRecord, endMs: number) =>
  choice.timed ? secondsWithoutBreaks(choice.startMs, Math.min(choice.endMs ?? endMs, endMs), record.timeLine.breaks) : 0;

/** The wrong choices made while work went on: from its start to its end. @example wrongsAtWork(record, 318000) // 15 of them */
export function wrongsAtWork(record: SessionRecord, nowMs: number | null = null): readonly WrongChoice[] {
  const endMs = endOfWorkMs(record, nowMs);
  return record.startWallMs === null ? [] : record.timeLine.wrongs.filter(({ startMs }) => startMs >= 0 && startMs <= endMs);
}

function kindsOf(choices: readonly WrongChoice[], of: (choice: WrongChoice) => string | null, seconds: (choice: WrongChoice) => number) {
  const kinds = new Map<string | null, { count: number; seconds: number; timed: number }>();
  for (const choice of choices) {
    const kind = kinds.get(of(choice)) ?? { count: 0, seconds: 0, timed: 0 };
    kind.count++;
    kind.seconds += seconds(choice);
    if (choice.timed) kind.timed++;
    kinds.set(of(choice), kind);
  }
  return [...kinds]
    .map(([name, kind]): WrongKind => ({ name, ...kind }))
    .sort((a, b) => b.count - a.count || ((a.name ?? "~") < (b.name ?? "~") ? -1 : 1));
}

/** How many came in each half of the working time up to a moment. */
function halvesOf(record: SessionRecord, choices: readonly WrongChoice[], nowMs: number | null): WrongHalves | null {
  const half = workSeconds(record, nowMs) / 2;
  if (half <= 0) return null;
  const first = choices.filter(({ startMs }) => secondsWithoutBreaks(0, startMs, record.timeLine.breaks) < half).length;
  return { first, second: choices.length - first };
}

/**
 * Sums the wrong choices of a session up.
 * @param nowMs the present of a session still running, from the start of work.
 * @returns null where there was none.
 * @example wrongChoicesOf(record)?.perTenMinutes
 */
export function wrongChoicesOf(record: SessionRecord, nowMs: number | null = null): WrongChoices | null {
  const choices = wrongsAtWork(record, nowMs);
  if (choices.length === 0) return null;
  const endMs = endOfWorkMs(record, nowMs);
  const minutes = workSeconds(record, nowMs) / 60;
  const length = (choice: WrongChoice) => lengthSeconds(choice, record, endMs);
  const pressed = choices.filter(({ met }) => meetsPressure(met));
  return {
    count: choices.length,
    perTenMinutes: minutes > 0 ? (10 * choices.length) / minutes : null,
    seconds: choices.reduce((sum, choice) => sum + length(choice), 0),
    timed: choices.filter(({ timed }) => timed).length,
    pressed: pressed.length,
    pressureSeconds: pressed.reduce((sum, choice) => sum + length(choice), 0),
    byChoice: kindsOf(choices, ({ did }) => did, length),
    byAnswer: kindsOf(choices, ({ met }) => met, length),
    byBegin: kindsOf(choices, ({ began }) => began, length),
    halves: halvesOf(record, choices, nowMs),
  };
}

/**
 * Whether the choice came back less, as counts and no more: in one session bouts
 * of it, and a horse that tires or settles, look the same as one that learns.
 * @example cameBackWords({ first: 8, second: 0 }) // "8 in the first half of the work, 0 in the second."
 */
export const cameBackWords = ({ first, second }: WrongHalves): string => `${first} in the first half of the work, ${second} in the second.`;
