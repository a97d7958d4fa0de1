import type { PastSession, PastTrial } from "./past";

/** Air at or above this is said beside a session, in °C (common practice, no source). */
export const HOT_FROM_C = 28;
/** A pause between two sessions of a behaviour that is said, in days (common practice, no source). */
export const BREAK_FROM_DAYS = 14;

interface Earlier {
  readonly session: PastSession;
  readonly trials: readonly PastTrial[];
}

const named = (names: ReadonlyMap<string, string>, id: string) => names.get(id) ?? id;

/**
 * What was special about a session, in words: what may explain why it lies
 * apart. Wind and heat as they were written down; what changed since the
 * session before.
 * @example conditionWords(session, trials, null, names) // ["from memory"]
 */
export function conditionWords(
  session: PastSession,
  trials: readonly PastTrial[],
  before: Earlier | null,
  names: ReadonlyMap<string, string>,
): string[] {
  const { facts, startedMs } = session;
  const words: string[] = [];
  if (facts.wind === "wind" || facts.wind === "gusts") words.push(facts.wind);
  if (facts.airC !== null && facts.airC >= HOT_FROM_C) words.push(`${Math.round(facts.airC)} °C`);
  if (trials.some(({ logged }) => logged === "late")) words.push("from memory");
  if (facts.moments.some(([, kind]) => kind === "danger")) words.push("danger sign");
  if (before === null) return words;
  const days = (startedMs - before.session.startedMs) / 86_400_000;
  if (days >= BREAK_FROM_DAYS) words.push(`after ${Math.round(days)} days`);
  if (session.place !== null && before.session.place !== null && session.place !== before.session.place)
    words.push(`at ${named(names, session.place)}`);
  const handlers = (list: readonly PastTrial[]) => new Set(list.flatMap(({ handler }) => handler ?? []));
  const earlier = handlers(before.trials);
  for (const handler of handlers(trials)) if (earlier.size > 0 && !earlier.has(handler)) words.push(`with ${named(names, handler)}`);
  if (before.session.kit.length > 0)
    for (const id of session.kit) if (!before.session.kit.includes(id)) words.push(`with ${named(names, id)}`);
  const versionOf = (list: readonly PastTrial[]) => Math.max(0, ...list.map(({ version }) => version ?? 0));
  if (versionOf(trials) > versionOf(before.trials)) words.push(`plan ${versionOf(trials)}`);
  if (trials.some(({ novel }) => novel)) words.push("new rung");
  return words;
}
