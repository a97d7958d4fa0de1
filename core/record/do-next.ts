/** What a line for next time needs of a session of work. */
export interface WorkedBefore {
  readonly id: string;
  readonly startedMs: number | null;
  /** What was written for next time, or null. */
  readonly doNext: string | null;
  /** Ladders worked in it. */
  readonly ladders: readonly string[];
}

/**
 * What was written for next time and still stands: until its ladder has been
 * worked again. Of several, the one of this ladder, otherwise the newest.
 * @param sessions newest first.
 * @param before a session that is left out: the one about to be worked.
 * @example standingDoNext([{ id: "a", startedMs: 0, doNext: "left first", ladders: ["x"] }], null, "x")?.text // "left first"
 */
export function standingDoNext(
  sessions: readonly WorkedBefore[],
  before: string | null,
  ladder: string | null = null,
): { readonly text: string; readonly dayMs: number } | null {
  const workedSince = new Set<string>();
  const standing: { text: string; dayMs: number; ladders: readonly string[] }[] = [];
  for (const { id, startedMs, doNext, ladders } of sessions) {
    if (id === before || startedMs === null) continue;
    const again = ladders.length === 0 ? workedSince.size > 0 : ladders.some((one) => workedSince.has(one));
    if (doNext !== null && !again) standing.push({ text: doNext, dayMs: startedMs, ladders });
    for (const one of ladders) workedSince.add(one);
  }
  const found = standing.find(({ ladders }) => ladder !== null && ladders.includes(ladder)) ?? standing[0];
  return found === undefined ? null : { text: found.text, dayMs: found.dayMs };
}
