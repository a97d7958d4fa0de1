import { FEWEST_TRIALS_TO_TELL } from "../evidence/shares";
import { counted } from "../words";

/** An answer as the transfer of a cue sees it, oldest first in a list. */
export interface TransferTrial {
  readonly met: boolean;
  /** Highest phase used; 1 is the new cue alone. */
  readonly phase: number | null;
}

export interface TransferProgress {
  /** Answers given before the old cue came, of the last ones looked at. */
  readonly before: number;
  readonly of: number;
  readonly done: boolean;
  readonly sentence: string;
}

/** The transfer is done at this many of the last so many (common practice, no source). */
export const TRANSFER_DONE = { before: 8, of: 10 } as const;

/**
 * How far a new cue has taken over: the share of met answers that came before the old cue.
 * @example transferProgress([]) // { before: 0, of: 0, done: false, … }
 */
export function transferProgress(trials: readonly TransferTrial[]): TransferProgress {
  const last = trials.filter((trial) => trial.met && trial.phase !== null).slice(-TRANSFER_DONE.of);
  const before = last.filter(({ phase }) => phase === 1).length;
  const done = last.length >= TRANSFER_DONE.of && before >= TRANSFER_DONE.before;
  const count = `${before} of the last ${counted(last.length, "answer")} came before the old cue.`;
  const sentence = done
    ? `${count} The new cue has taken over; the old one may go.`
    : last.length < FEWEST_TRIALS_TO_TELL
      ? `${last.length === 0 ? "No answers with a phase yet." : count} Too few to tell.`
      : `${count} ${TRANSFER_DONE.before} of ${TRANSFER_DONE.of} are wanted.`;
  return { before, of: last.length, done, sentence };
}
