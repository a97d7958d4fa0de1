import { FEWEST_TRIALS_TO_TELL, type Interval, type ShareSums, sessionShare } from "../evidence";
import { counted, percentSpan } from "../words";

/** Over fewer sessions than this, but more than one, no interval is drawn: two days say nothing of how days differ. */
export const FEWEST_SESSIONS_TO_TELL = 3;

/** A share as it may be said and drawn. */
export interface ToldShare {
  readonly share: number | null;
  /** Null where there is too little to draw one from. */
  readonly interval: Interval | null;
  readonly sentence: string;
}

/**
 * A share with what it supports: too few trials, one session (how it went
 * then, and no more), too few sessions, or an interval that counts how alike
 * the trials of one session are.
 * @param when what the one session is called: "today" while it runs.
 * @example toldShare(sumsOfSessions([{ met: 8, of: 10 }])).sentence // "8 of 10 in one session: there, 49 to 94 %."
 */
export function toldShare(sums: ShareSums, when: "today" | "in one session" = "in one session"): ToldShare {
  const { met, of, sessions } = sums;
  const told = sessionShare(sums);
  if (told === null) return { share: null, interval: null, sentence: "No trials yet." };
  const { share, interval } = told;
  const counts = `${met} of ${of}`;
  if (of < FEWEST_TRIALS_TO_TELL) return { share, interval: null, sentence: `${counts}: too few to tell.` };
  if (sessions === 1)
    return {
      share,
      interval,
      sentence:
        when === "today"
          ? `${counts} today, could be ${percentSpan(interval)} today.`
          : `${counts} in one session: there, ${percentSpan(interval)}.`,
    };
  const over = `${counts} in ${counted(sessions, "session")}`;
  if (sessions < FEWEST_SESSIONS_TO_TELL) return { share, interval: null, sentence: `${over}: too few sessions to tell.` };
  return { share, interval, sentence: `${over}, could be anywhere from ${percentSpan(interval)}.` };
}
