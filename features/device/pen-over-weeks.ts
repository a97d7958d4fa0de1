/** Pages of Review that look at many sessions: they need the server, and are no session. */
export const OVER_WEEKS: ReadonlySet<string> = new Set([
  "weeks",
  "sides",
  "compare",
  "try-both",
  "changes",
  "moments",
  "month",
  "trials",
  "load",
]);
