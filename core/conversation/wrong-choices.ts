import { type RateRatio, rateRatio } from "../evidence";
import { meetsPressure } from "../ladder";
import { endOfWorkMs, type SessionRecord, secondsWithoutBreaks, type WrongChoice, workSeconds } from "../record";
import { counted } from "../words";

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

/** The first half of the working time against the second. */
export interface WrongHalves {
  readonly first: number;
  readonly second: number;
  /** Choices soon after one another are one bout: so many bouts began in each half. */
  readonly bouts: { readonly first: number; readonly second: number };
  /** The second half's rate of bouts over the first's. */
  readonly ratio: RateRatio;
}

/** Chances under this, two-sided, are called a difference. */
const CALLED_AT = 0.05;
/** A choice this soon after the one before belongs to the same bout, in seconds of work (common practice, no source). */
const BOUT_SECONDS = 30;

const lengthSeconds = (choice: WrongChoice, record: SessionRecord, endMs: number) =>
  choice.timed ? secondsWithoutBreaks(choice.startMs, Math.min(choice.endMs ?? endMs, endMs), record.timeLine.breaks) : 0;

/** The wrong choices made while work went on: from its start to its end. */
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

/**
 * How many came in each half of the working time up to a moment. Choices come
 * in bouts, and a bout more in one half says little: what is held against each
 * other is bouts.
 */
function halvesOf(record: SessionRecord, choices: readonly WrongChoice[], nowMs: number | null): WrongHalves | null {
  const { breaks } = record.timeLine;
  const halfSeconds = workSeconds(record, nowMs) / 2;
  if (halfSeconds <= 0) return null;
  const at = choices.map(({ startMs }) => secondsWithoutBreaks(0, startMs, breaks)).sort((a, b) => a - b);
  const bouts = at.filter((seconds, i) => i === 0 || seconds - (at[i - 1] as number) > BOUT_SECONDS);
  const count = (list: readonly number[]) => {
    const first = list.filter((seconds) => seconds < halfSeconds).length;
    return { first, second: list.length - first };
  };
  const minutes = halfSeconds / 60;
  const inBouts = count(bouts);
  const ratio = rateRatio({ count: inBouts.second, minutes }, { count: inBouts.first, minutes });
  return ratio === null ? null : { ...count(at), bouts: inBouts, ratio };
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

const times = (ratio: number) => (Number.isFinite(ratio) ? `${ratio < 0.1 ? ratio.toFixed(2) : ratio.toFixed(1)}` : "any number of");

/** Whether the choice came back less, in words that say no more than the interval of the two rates. */
export function cameBackWords({ first, second, bouts, ratio }: WrongHalves): string {
  const inBouts = bouts.first + bouts.second < first + second ? `, in ${bouts.first} and ${counted(bouts.second, "bout")}` : "";
  const numbers = `${first} in the first half of the work, ${second} in the second${inBouts}`;
  const span = `${times(ratio.interval[0])} to ${times(ratio.interval[1])} times as often`;
  if (ratio.p >= CALLED_AT) return `${numbers}: no difference shown (the second half ${span}).`;
  return `${numbers}: ${ratio.ratio < 1 ? "less often" : "more often"} in the second half, ${span}.`;
}
