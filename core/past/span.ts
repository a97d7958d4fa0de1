import { type Day, dayBeginsIn, dayEndsIn, isDay, startOfDayIn } from "../day";
import { MILLISECONDS_PER_DAY } from "../units";

/** Spans that stand ready, in days. The second is what a view opens on. */
export const SPANS = [
  { key: "14", label: "two weeks", days: 14 },
  { key: "42", label: "six weeks", days: 42 },
  { key: "91", label: "three months", days: 91 },
  { key: "365", label: "a year", days: 365 },
  { key: "all", label: "all of it", days: null },
] as const;

export const USUAL_SPAN = "42";

/** A stretch of time a view is about. */
export interface PastSpan {
  /** Which of {@link SPANS}, or `own` for days that were typed. */
  readonly key: string;
  readonly fromMs: number;
  readonly toMs: number;
  readonly label: string;
  /** Days that were typed, as they stand in the form. */
  readonly from: Day | "";
  readonly to: Day | "";
}

/**
 * The stretch asked for by an address: one that stands ready, or from one day
 * to another, both of the yard's own. What cannot be read is the usual one,
 * the last six weeks where no other is given.
 * @example spanOf({ span: "14" }, nowMs, "Europe/Oslo").label // "the last two weeks"
 */
export function spanOf(
  asked: { readonly span?: string; readonly from?: string; readonly to?: string },
  nowMs: number,
  timeZone: string,
  usual: string = USUAL_SPAN,
): PastSpan {
  const from = isDay(asked.from) ? asked.from : "";
  const to = isDay(asked.to) ? asked.to : "";
  if ((from !== "" || to !== "") && !(from !== "" && to !== "" && from > to)) {
    return {
      key: "own",
      fromMs: from === "" ? 0 : dayBeginsIn(from, timeZone),
      toMs: to === "" ? Number.MAX_SAFE_INTEGER : dayEndsIn(to, timeZone),
      label: from === "" ? `up to ${to}` : to === "" ? `since ${from}` : `${from} to ${to}`,
      from,
      to,
    };
  }
  const chosen = SPANS.find(({ key }) => key === asked.span) ?? SPANS.find(({ key }) => key === usual) ?? SPANS[1];
  return {
    key: chosen.key,
    fromMs: chosen.days === null ? 0 : startOfDayIn(nowMs - chosen.days * MILLISECONDS_PER_DAY, timeZone),
    toMs: Number.MAX_SAFE_INTEGER,
    label: chosen.days === null ? "since the beginning" : `the last ${chosen.label}`,
    from: "",
    to: "",
  };
}
