import { mixedChance } from "../chance";
import { type Interval, student975 } from "../evidence";
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
  /** Share that one would follow by chance: the same bouts put anywhere else in the same third of their session. */
  readonly base: number;
  /** Share less base. */
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

/** A session by the second, so that a bout can be put anywhere in it. */
interface Seconds {
  /** The seconds while the horse was there, in their order. */
  readonly there: Int32Array;
  /** Of each second of the session, whether one went within the window after it. */
  readonly followed: Uint8Array;
}

function secondsOf(session: PastSession, goes: readonly number[]): Seconds {
  const n = Math.ceil(session.facts.endMs / 1000);
  const followed = new Uint8Array(n);
  for (const at of goes) {
    // A sign in the same second may have come after it.
    const last = Math.min(n - 1, Math.floor(at / 1000) - 1);
    for (let s = Math.max(0, Math.ceil(at / 1000) - FOLLOWS_WITHIN_SECONDS); s <= last; s++) followed[s] = 1;
  }
  const there: number[] = [];
  for (let s = 0; s < n; s++) if (!gone(session, s * 1000)) there.push(s);
  return { there: Int32Array.from(there), followed };
}

/** Bouts of one sign in one third of one session: they are shifted together. */
interface Third {
  readonly seconds: Seconds;
  readonly fromIndex: number;
  readonly length: number;
  /** Each bout as the places of its signs among the seconds of that third. */
  readonly bouts: readonly (readonly number[])[];
}

/** Whether something followed one of a bout's signs, moved on by so many seconds and round within its third. */
const followedAt = ({ seconds, fromIndex, length }: Third, bout: readonly number[], shift: number): boolean =>
  bout.some((at) => seconds.followed[seconds.there[fromIndex + ((at + shift) % length)] as number] === 1);

/** A third of the session in which signs and departures are about as common throughout. */
const PARTS = 3;

/** The bouts of one sign of a session, by the third in which each began. */
function thirdsOf(seconds: Seconds, bouts: readonly (readonly number[])[]): Third[] {
  const n = seconds.there.length;
  const found: Third[] = [];
  for (let part = 0; part < PARTS; part++) {
    const fromIndex = Math.floor((n * part) / PARTS);
    const length = Math.floor((n * (part + 1)) / PARTS) - fromIndex;
    const own = bouts.filter(([first = 0]) => first >= fromIndex && first < fromIndex + length);
    if (own.length > 0) found.push({ seconds, fromIndex, length, bouts: own.map((bout) => bout.map((at) => at - fromIndex)) });
  }
  return found;
}

const SHIFTS = 2000;
const FIRST_SHIFTS = 400;
const CLEARLY_NOTHING = 0.2;

/**
 * Share of shifts in which as many bouts were followed: the bouts of a sign are moved on together within each third of each
 * session, so that they stay bouts and stay as late as they were, and what they
 * have to do with going is broken.
 */
function shiftedP(thirds: readonly Third[], seen: number): number {
  const chance = mixedChance(`before:${thirds.length}:${seen}:${thirds.reduce((sum, { length }) => sum + length, 0)}`);
  let asMuch = 0;
  for (let s = 0; s < SHIFTS; s++) {
    if (s === FIRST_SHIFTS && asMuch / s > CLEARLY_NOTHING) return asMuch / s;
    let sum = 0;
    for (const third of thirds) {
      const shift = Math.floor(chance() * third.length);
      for (const bout of third.bouts) if (followedAt(third, bout, shift)) sum++;
    }
    if (sum >= seen) asMuch++;
  }
  return (asMuch + 1) / (SHIFTS + 1);
}

/** Over every shift, each bout on its own: the number that chance alone would have followed. */
const meanShifted = (thirds: readonly Third[]): number =>
  thirds.reduce((sum, third) => {
    let followed = 0;
    for (let shift = 0; shift < third.length; shift++) for (const bout of third.bouts) if (followedAt(third, bout, shift)) followed++;
    return sum + followed / third.length;
  }, 0);

interface BySession {
  readonly bouts: number;
  readonly followed: number;
  /** Of its bouts that chance alone would have followed. */
  readonly byChance: number;
}

interface Found {
  readonly kind: Precursor["kind"];
  readonly name: string;
  readonly sessions: BySession[];
  readonly thirds: Third[];
}

/** The bouts of each sign of a session, as the places of its signs among the seconds the horse was there. */
function boutsOf(seen: readonly Seen[], { there }: Seconds): ReadonlyMap<string, { readonly first: Seen; readonly bouts: number[][] }> {
  const place = new Map([...there].map((second, i) => [second, i]));
  const found = new Map<string, { first: Seen; bouts: number[][]; lastMs: number }>();
  for (const one of seen) {
    const at = place.get(Math.floor(one.ms / 1000));
    if (at === undefined) continue;
    const key = `${one.kind} ${one.name}`;
    const own = found.get(key);
    if (own === undefined) found.set(key, { first: one, bouts: [[at]], lastMs: one.ms });
    else {
      if (one.ms - own.lastMs <= FOLLOWS_WITHIN_SECONDS * 1000) own.bouts.at(-1)?.push(at);
      else own.bouts.push([at]);
      own.lastMs = one.ms;
    }
  }
  return found;
}

/**
 * What comes before a departure or a danger sign (lag analysis after Bakeman &
 * Quera 2011, from memory): how often one follows within twenty seconds, beside
 * how often one would by chance. Signs and departures come in bouts and both
 * may be commoner late, so what repeats within the window is one bout, and the
 * bouts of a sign are shifted within the thirds of their sessions (a
 * randomisation by circular shifts, as in Harris 2020, from memory); called at 0.05 over
 * how many signs were looked at. It says what comes before, not what makes it go.
 * Cost grows with signs × bouts × 2000 shifts, a fifth where nothing shows.
 * @example beforeItGoes(past).precursors[0].sentence
 */
export function beforeItGoes(past: Past): BeforeItGoes {
  const lists = bySession(past);
  const found = new Map<string, Found>();
  let goesAll = 0;
  let baseSum = 0;
  for (const [i, session] of past.sessions.entries()) {
    const goes = session.facts.moments.flatMap(([ms, kind]) => (isGo(kind) ? [ms] : []));
    goesAll += goes.length;
    const seconds = secondsOf(session, goes);
    // A session nothing went in tells as much as one in which it did.
    const before = seconds.there.reduce((sum, second) => sum + (seconds.followed[second] as number), 0);
    baseSum += seconds.there.length === 0 ? 0 : before / seconds.there.length;
    const seen = seenIn(session, lists[i] ?? []).filter(({ ms }) => !gone(session, ms));
    for (const [key, { first, bouts }] of boutsOf(seen, seconds)) {
      const entry = found.get(key) ?? { kind: first.kind, name: first.name, sessions: [], thirds: [] };
      const thirds = thirdsOf(seconds, bouts);
      const followed = thirds.reduce((sum, third) => sum + third.bouts.filter((bout) => followedAt(third, bout, 0)).length, 0);
      entry.sessions.push({ bouts: bouts.length, followed, byChance: meanShifted(thirds) });
      entry.thirds.push(...thirds);
      found.set(key, entry);
    }
  }
  const looked = [...found.values()].filter(({ sessions }) => sessions.reduce((sum, { bouts }) => sum + bouts, 0) >= FEWEST_BOUTS);
  const precursors =
    goesAll === 0
      ? []
      : looked.map((entry) => precursorOf(entry, looked.length)).sort((a, b) => Number(b.called) - Number(a.called) || b.lift - a.lift);
  const base = past.sessions.length === 0 ? 0 : baseSum / past.sessions.length;
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

function precursorOf({ kind, name, sessions, thirds }: Found, looked: number): Precursor {
  const sumOf = (of: (one: BySession) => number) => sessions.reduce((sum, one) => sum + of(one), 0);
  const bouts = sumOf((one) => one.bouts);
  const followed = sumOf((one) => one.followed);
  const byChance = sumOf((one) => one.byChance);
  const [share, base] = [followed / bouts, byChance / bouts];
  const n = sessions.length;
  const p = n < FEWEST_SESSIONS ? null : shiftedP(thirds, followed);
  const lift = share - base;
  const called = p !== null && p < CALLED_AT / looked && lift > 0;
  const spread =
    Math.sqrt(sessions.reduce((sum, one) => sum + (one.followed - one.byChance - lift * one.bouts) ** 2, 0) * (n / Math.max(1, n - 1))) /
    bouts;
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
    sentence: `After ${precursorWords({ kind, name })} it left or showed danger within ${FOLLOWS_WITHIN_SECONDS} s in ${followed} of ${bouts}; by chance it would be ${inHundredths(base)} of 100.`,
  };
}
