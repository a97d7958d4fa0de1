import { type Interval, signFlip, student975 } from "../evidence";
import { inHundredths } from "../words";
import type { MomentKind } from "./facts";
import { bySession, type Past, type PastSession, type PastTrial } from "./past";
import { FOLLOWS_WITHIN_SECONDS, precursorWords, WAITS_FROM_SECONDS } from "./precursor-words";

/** What comes before the horse leaves or a danger sign, and how much more often than by chance. */
export interface Precursor {
  readonly kind: MomentKind | "waited";
  readonly name: string;
  /** Bouts of it: those within the window of the one before are one. */
  readonly bouts: number;
  /** Bouts a departure or danger sign followed. */
  readonly followed: number;
  readonly share: number;
  /** Share of all moments of the same sessions that one followed. */
  readonly base: number;
  /** Share less base over sessions, each once by its bouts. */
  readonly lift: number;
  /** 95 % of the lift by sessions; null under six. */
  readonly interval: Interval | null;
  readonly p: number | null;
  readonly sessions: number;
  readonly called: boolean;
  /** Strong enough that the recorder may say so in time. */
  readonly prompts: boolean;
  readonly sentence: string;
}

/** What comes before it goes. */
export interface BeforeItGoes {
  readonly precursors: readonly Precursor[];
  /** Departures and danger signs of the span. */
  readonly goes: number;
  readonly sessions: number;
  readonly base: number;
  readonly sentence: string;
}

/** Looked at many signs at once, so that one is called only at this over the number looked at (Bonferroni). */
const CALLED_AT = 0.05;
const FEWEST_BOUTS = 5;
const FEWEST_SESSIONS = 6;
/** Followed at least so often, and so many times as often as by chance, before the recorder says anything. */
const PROMPTS_FROM = { share: 1 / 3, times: 3 };

const isGo = (kind: MomentKind) => kind === "left" || kind === "danger";

interface Seen {
  readonly kind: Precursor["kind"];
  readonly name: string;
  readonly ms: number;
}

/** Times at which nothing had been asked, answered or given for so long. */
function waitsOf(session: PastSession, trials: readonly PastTrial[]): Seen[] {
  const busy = trials.flatMap(({ askMs, endMs }) => [[askMs, endMs] as const]).sort((a, b) => a[0] - b[0]);
  const waits: Seen[] = [];
  let from = 0;
  for (const [startMs, endMs] of busy) {
    const due = from + WAITS_FROM_SECONDS * 1000;
    if (startMs > due && !session.facts.breaks.some(([a, b]) => a < startMs && b > from)) waits.push({ kind: "waited", name: "", ms: due });
    from = Math.max(from, endMs);
  }
  return waits;
}

/** What a session showed before anything went: moments of the work while the horse was there. */
function seenIn(session: PastSession, trials: readonly PastTrial[]): Seen[] {
  const { moments } = session.facts;
  const told = moments.flatMap(([ms, kind, name]): Seen[] => (isGo(kind) ? [] : [{ ms, kind, name }]));
  return [...told, ...waitsOf(session, trials)].sort((a, b) => a.ms - b.ms);
}

/** Whether a moment lies where the horse was away or at rest: it cannot go then. */
const gone = ({ facts }: PastSession, ms: number) =>
  facts.away.some(([from, to]) => from < ms && ms < to) || facts.breaks.some(([from, to]) => from <= ms && ms < to);

interface BySession {
  bouts: number;
  followed: number;
  base: number;
}

/** Share of a session's moments, second by second while the horse was there, that a go followed. */
function baseOf(session: PastSession, goes: readonly number[]): number {
  if (goes.length === 0) return 0;
  let all = 0;
  let before = 0;
  const within = FOLLOWS_WITHIN_SECONDS * 1000;
  for (let ms = 0; ms < session.facts.endMs; ms += 1000) {
    if (gone(session, ms)) continue;
    all++;
    if (goes.some((at) => at > ms && at - ms <= within)) before++;
  }
  return all === 0 ? 0 : before / all;
}

/**
 * What comes before a departure or a danger sign (lag analysis after Bakeman &
 * Quera 2011, from memory): how often one follows within twenty seconds, beside
 * how often one follows any moment of the same sessions. Things come in bouts,
 * so what repeats within the window is one, and each session is one difference,
 * tested by turning signs about; called at 0.05 over how many were looked at.
 * It says what comes before, not what makes it go.
 * @example beforeItGoes(past).precursors[0].sentence
 */
export function beforeItGoes(past: Past): BeforeItGoes {
  const lists = bySession(past);
  const within = FOLLOWS_WITHIN_SECONDS * 1000;
  const found = new Map<string, { kind: Precursor["kind"]; name: string; sessions: BySession[] }>();
  let goesAll = 0;
  let baseSum = 0;
  let counted = 0;
  for (const [i, session] of past.sessions.entries()) {
    const goes = session.facts.moments.flatMap(([ms, kind]) => (isGo(kind) ? [ms] : []));
    goesAll += goes.length;
    // A session nothing went in tells as much as one in which it did.
    const base = baseOf(session, goes);
    baseSum += base;
    counted++;
    const own = new Map<string, BySession & { kind: Precursor["kind"]; name: string; lastMs: number; hit: boolean }>();
    for (const { kind, name, ms } of seenIn(session, lists[i] ?? [])) {
      if (gone(session, ms)) continue;
      const key = `${kind} ${name}`;
      const followed = goes.some((at) => at > ms && at - ms <= within);
      const bout = own.get(key);
      if (bout === undefined) own.set(key, { kind, name, bouts: 1, followed: Number(followed), base, lastMs: ms, hit: followed });
      else {
        if (ms - bout.lastMs <= within) {
          if (followed && !bout.hit) bout.followed++;
          bout.hit ||= followed;
        } else {
          bout.bouts++;
          bout.followed += Number(followed);
          bout.hit = followed;
        }
        bout.lastMs = ms;
      }
    }
    for (const [key, { kind, name, bouts, followed }] of own) {
      const entry = found.get(key) ?? { kind, name, sessions: [] };
      entry.sessions.push({ bouts, followed, base });
      found.set(key, entry);
    }
  }
  const looked = [...found.values()].filter(({ sessions }) => sessions.reduce((sum, { bouts }) => sum + bouts, 0) >= FEWEST_BOUTS);
  const precursors =
    goesAll === 0
      ? []
      : looked.map((entry) => precursorOf(entry, looked.length)).sort((a, b) => Number(b.called) - Number(a.called) || b.lift - a.lift);
  const base = counted === 0 ? 0 : baseSum / counted;
  const called = precursors.filter((one) => one.called);
  return {
    precursors,
    goes: goesAll,
    sessions: past.sessions.length,
    base,
    sentence:
      goesAll === 0
        ? "It did not leave, and there was no danger sign, in this span."
        : called.length === 0
          ? `${goesAll} times it left or showed danger; nothing is shown to come before it more often than by chance.`
          : called.map(({ sentence }) => sentence).join(" "),
  };
}

function precursorOf(
  { kind, name, sessions }: { kind: Precursor["kind"]; name: string; sessions: readonly BySession[] },
  looked: number,
): Precursor {
  const bouts = sessions.reduce((sum, one) => sum + one.bouts, 0);
  const followed = sessions.reduce((sum, one) => sum + one.followed, 0);
  const base = sessions.reduce((sum, one) => sum + one.base * one.bouts, 0) / bouts;
  const share = followed / bouts;
  const differences = sessions.map((one) => ({ difference: one.followed / one.bouts - one.base, weight: one.bouts }));
  const test = signFlip(differences);
  const n = sessions.length;
  const p = n < FEWEST_SESSIONS ? null : (test?.p ?? null);
  const lift = share - base;
  const called = p !== null && p < CALLED_AT / looked && lift > 0;
  const spread =
    Math.sqrt(
      differences.reduce((sum, { difference, weight }) => sum + (weight * (difference - lift)) ** 2, 0) * (n / Math.max(1, n - 1)),
    ) / bouts;
  return {
    kind,
    name,
    bouts,
    followed,
    share,
    base,
    lift,
    interval: n < FEWEST_SESSIONS ? null : [lift - student975(n - 1) * spread, lift + student975(n - 1) * spread],
    p,
    sessions: n,
    called,
    prompts: called && share >= PROMPTS_FROM.share && share >= PROMPTS_FROM.times * base,
    sentence: `After ${precursorWords({ kind, name })} it left or showed danger within ${FOLLOWS_WITHIN_SECONDS} s in ${followed} of ${bouts}; after any moment in ${inHundredths(base)} of 100.`,
  };
}
