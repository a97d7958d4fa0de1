import { FEWEST_TRIALS_TO_TELL, type Interval, type ShareSums, sessionShare } from "../evidence";
import { counted, percentSpan } from "../words";

/** Over fewer sessions than this, but more than one, no interval is drawn: two days say nothing of how days differ. */
export const FEWEST_SESSIONS_TO_TELL = 3;

/** The span of what counts for moving on: other screens have the counts of a whole version beside them. */
export const SINCE_IT_CAME = "since it came to this rung";

/** What a range over sessions is of, for the help line of every screen that has one. */
export const RANGE_MEANS =
  "The range is of the share over days such as these, with these handlers and at these places: 95 of 100 such ranges hold it. Asks of one session are alike and days like the days beside them, which makes it wide (Wilson 1927, after Korn and Graubard 1998). A horse that is altogether better or worse for months lies outside.";

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
 * @param span over what the counts go, where another screen has them over something else: "since it came to this rung".
 * @param when what the one session is called: "today" while it runs.
 * @example toldShare(sumsOfSessions([{ met: 8, of: 10 }])).sentence // "8 of 10 in one session: there, 49 to 94 %."
 */
export function toldShare(sums: ShareSums, span = ""): ToldShare {
  const { met, of, sessions } = sums;
  const told = sessionShare(sums);
  if (told === null) return { share: null, interval: null, sentence: span === "" ? "No trials yet." : `No asks ${span}.` };
  const { share, interval } = told;
  const over = span === "" ? "" : ` ${span}`;
  const counts = `${met} of ${of}${over}`;
  if (of < FEWEST_TRIALS_TO_TELL) return { share, interval: null, sentence: `${counts}: too few to tell.` };
  if (sessions === 1)
    return {
      share,
      interval,
      sentence: `${counts}${over === "" ? " in one session" : ", in one session"}: there, ${percentSpan(interval)}.`,
    };
  const inSessions = `${counts}${over === "" ? "" : ","} in ${counted(sessions, "session")}`;
  if (sessions < FEWEST_SESSIONS_TO_TELL) return { share, interval: null, sentence: `${inSessions}: too few sessions to tell.` };
  return { share, interval, sentence: `${inSessions}, could be anywhere from ${percentSpan(interval)}.` };
}
