import {
  acrossSpells,
  CALLED_AT,
  type Counted,
  cellsInOrder,
  contrastBySessions,
  type DatedSum,
  type Interval,
  type LogRank,
  logRank,
  type OrderedTrial,
  type RateRatio,
  rateRatio,
  type SessionCells,
  type SessionContrast,
  type ShareDifference,
  type StratifiedSum,
  sessionPermutation,
  sessionShare,
  shareDifference,
  shareOfTrials,
  spellFactor,
  stratifiedPermutation,
  type Waiting,
} from "../evidence";
import { counted, inHundredths } from "../words";
import { type HalfTime, halfTime } from "./half-time";
import type { Past, PastTrial } from "./past";

/** One of two sets of trials that are held against each other. */
export interface ComparedSet {
  readonly trials: number;
  readonly sessions: number;
  readonly share: Counted;
  readonly half: HalfTime | null;
  readonly met: number;
  readonly minutes: number;
}

/** How the comparison that respects sessions was made. */
export type ByWhat = "within" | "same rungs" | "between";

/** The comparison that leads: trials of one session resemble each other, so the session is its unit. */
export interface LeadingContrast {
  readonly by: ByWhat;
  /** Second less first; null where nothing could be compared. */
  readonly difference: number | null;
  /** 95 %, with the session as unit; null where sessions are too few to draw one. */
  readonly interval: Interval | null;
  readonly p: number | null;
  /** Sessions (or pairs of days) compared within, or those of both sets. */
  readonly sessions: number;
  readonly called: boolean;
  readonly sentence: string;
}

/** Two sets of trials held against each other. */
export interface SetContrast {
  readonly first: ComparedSet;
  readonly second: ComparedSet;
  readonly share: LeadingContrast;
  /** Seconds, as times: second over first; by sessions. */
  readonly latency: LeadingContrast;
  /** What takes every trial as independent. */
  readonly plain: { readonly share: ShareDifference | null; readonly latency: LogRank | null; readonly rate: RateRatio | null };
  /** Why the two may not be alike in other things. */
  readonly cautions: readonly string[];
}

/** A set with its past: two sets may come from two horses. */
export interface SetOfTrials {
  readonly past: Past;
  readonly trials: readonly PastTrial[];
}

/** Sessions on each hand below which no interval is drawn between sets of sessions. */
const FEWEST_BETWEEN = 3;
/** Where the chance that a session of one set began before one of the other lies outside these, one set lies before the other. */
const IN_ORDER = 0.75;

const idOf = ({ past }: SetOfTrials, { session }: PastTrial) => past.sessions[session]?.id ?? "";

function minutesOf({ past, trials }: SetOfTrials): number {
  const blocks = new Set(
    trials.flatMap(({ session, block, logged }) => (block === null || logged === "late" ? [] : [`${session} ${block}`])),
  );
  let seconds = 0;
  for (const key of blocks) {
    const [session, block] = key.split(" ").map(Number);
    seconds += past.sessions[session ?? -1]?.facts.blocks[block ?? -1]?.seconds ?? 0;
  }
  return seconds / 60;
}

function setOf(set: SetOfTrials): ComparedSet {
  const { trials } = set;
  const met = trials.filter(({ outcome }) => outcome === "met").length;
  return {
    trials: trials.length,
    sessions: new Set(trials.map((trial) => idOf(set, trial))).size,
    share: { met, of: trials.length },
    half: halfTime(trials),
    met: trials.filter(({ outcome, logged }) => outcome === "met" && logged !== "late").length,
    minutes: minutesOf(set),
  };
}

/** What a trial adds to a comparison, or null where it adds nothing. */
type Worth = (trial: PastTrial) => number | null;

const metWorth: Worth = ({ outcome }) => (outcome === "met" ? 1 : 0);
/** Doublings of a second: a ratio of times is a difference of these. Answers alone, so a refusal is in the share and not here. */
const timeWorth: Worth = ({ outcome, latencySeconds }) =>
  (outcome === "met" || outcome === "try") && latencySeconds !== null && latencySeconds > 0 ? Math.log2(latencySeconds) : null;

interface Sum {
  met: number;
  of: number;
}

/** Trials by session and by what must be alike, both sets side by side in the order they were asked; sessions in the order they were worked. */
function cellsOf(first: SetOfTrials, second: SetOfTrials, worth: Worth): SessionCells[] {
  const sessions = new Map<string, { startedMs: number; trials: (OrderedTrial & { readonly number: number })[] }>();
  for (const set of [first, second])
    for (const trial of set.trials) {
      const value = worth(trial);
      if (value === null || trial.rung === null) continue;
      const id = idOf(set, trial);
      const session = sessions.get(id) ?? { startedMs: set.past.sessions[trial.session]?.startedMs ?? 0, trials: [] };
      const stratum = JSON.stringify([trial.ladder, trial.version, trial.rung]);
      session.trials.push({ stratum, second: set === second, worth: value, number: trial.number });
      sessions.set(id, session);
    }
  return [...sessions.values()]
    .sort((a, b) => a.startedMs - b.startedMs)
    .map(({ trials }) => cellsInOrder(trials.sort((a, b) => a.number - b.number)));
}

function sumsBySession(set: SetOfTrials, worth: Worth): { sum: number; of: number }[] {
  const sums = new Map<string, { sum: number; of: number }>();
  for (const trial of set.trials) {
    const value = worth(trial);
    if (value === null) continue;
    const id = idOf(set, trial);
    const sum = sums.get(id) ?? { sum: 0, of: 0 };
    sum.sum += value;
    sum.of++;
    sums.set(id, sum);
  }
  return [...sums.values()];
}

/** Two shares over sessions that have nothing in common: each interval drawn with its sessions, the two combined (Newcombe 1998). */
function intervalBetween(first: SetOfTrials, second: SetOfTrials): Interval | null {
  const sharesOf = (set: SetOfTrials) =>
    sessionShare(shareOfTrials(set.trials.map((trial) => ({ session: idOf(set, trial), outcome: trial.outcome }))));
  const a = sharesOf(first);
  const b = sharesOf(second);
  if (a === null || b === null) return null;
  const d = b.share - a.share;
  return [
    Math.max(-1, d - Math.hypot(b.share - b.interval[0], a.interval[1] - a.share)),
    Math.min(1, d + Math.hypot(b.interval[1] - b.share, a.share - a.interval[0])),
  ];
}

interface Words {
  readonly empty: string;
  readonly nothing: string;
  readonly differs: (difference: number) => string;
}

const SHARE_WORDS: Words = {
  empty: "Nothing to compare: one of the two is empty.",
  nothing: "No difference of shares shown yet",
  differs: (d) => `B is met ${Math.abs(inHundredths(d))} points ${d > 0 ? "more" : "less"} often`,
};
const TIME_WORDS: Words = {
  empty: "No timed answers in one of the two.",
  nothing: "No difference of times shown yet",
  differs: (d) => `B takes ${(2 ** Math.abs(d)).toFixed(1)} times as ${d > 0 ? "long" : "short"}`,
};

/** Each session of a set once, by the rung it holds most of: what may change lots with a session of the other set. */
function unitsOf(set: SetOfTrials, second: boolean, worth: Worth): StratifiedSum[] {
  const sessions = new Map<string, Map<string, Sum>>();
  for (const trial of set.trials) {
    const value = worth(trial);
    if (value === null || trial.rung === null) continue;
    const id = idOf(set, trial);
    const rungs = sessions.get(id) ?? new Map<string, Sum>();
    const stratum = JSON.stringify([trial.ladder, trial.version, trial.rung]);
    const sum = rungs.get(stratum) ?? { met: 0, of: 0 };
    sum.met += value;
    sum.of++;
    rungs.set(stratum, sum);
    sessions.set(id, rungs);
  }
  return [...sessions.values()].flatMap((rungs) => {
    const [most] = [...rungs].sort((a, b) => b[1].of - a[1].of);
    return most === undefined ? [] : [{ stratum: most[0], second, sum: most[1].met, of: most[1].of }];
  });
}

/** Sessions of both sets on rungs that both hold, at least half of all there are; null where they hold too little in common. */
function onSameRungs(first: SetOfTrials, second: SetOfTrials, worth: Worth) {
  const units = [...unitsOf(first, false, worth), ...unitsOf(second, true, worth)];
  const test = stratifiedPermutation(units);
  return test === null || Math.min(test.first, test.second) < 2 || 2 * (test.first + test.second) < units.length ? null : test;
}

/** How many sessions hold both sets on a same rung. */
const sharedSessions = (cells: readonly SessionCells[]) =>
  cells.filter((session) => session.some((cell) => cell.first.of > 0 && cell.second.of > 0)).length;

/** A difference that warming up or tiring may be behind: what came first, and what would tell. */
function orderWords({ cameFirst: { first, second }, n }: SessionContrast): string {
  const often =
    first === second ? "" : `${first > second ? "A" : "B"} came first in ${Math.max(first, second)} of ${counted(n, "session")}, so `;
  return `${often}${often === "" ? "The difference" : "the difference"} can't be told apart from warming up or tiring. Take turns in which comes first.`;
}

/** Each session of a set by when it was. */
function datedSums(set: SetOfTrials, second: boolean, worth: Worth): DatedSum[] {
  const sums = new Map<number, { sum: number; of: number }>();
  for (const trial of set.trials) {
    const value = worth(trial);
    if (value === null) continue;
    const sum = sums.get(trial.session) ?? { sum: 0, of: 0 };
    sum.sum += value;
    sum.of++;
    sums.set(trial.session, sum);
  }
  return [...sums].map(([session, sum]) => ({ ...sum, second, startedMs: set.past.sessions[session]?.startedMs ?? 0 }));
}

function leading(first: SetOfTrials, second: SetOfTrials, worth: Worth, words: Words, interval: () => Interval | null): LeadingContrast {
  const say = (called: boolean, difference: number, n: string) => `${called ? words.differs(difference) : words.nothing}, ${n}.`;
  const cells = cellsOf(first, second, worth);
  if (sharedSessions(cells) >= 2) {
    const within = contrastBySessions(cells);
    if (within.difference !== null) {
      const called = within.behind !== null;
      return {
        by: "within",
        difference: within.difference,
        interval: null,
        p: within.p,
        sessions: within.n,
        called,
        sentence: within.orderBehind
          ? orderWords(within)
          : say(called, within.difference, `compared within sessions ${counted(within.n, "time")}`),
      };
    }
  }
  const same = onSameRungs(first, second, worth);
  const lots = same ?? sessionPermutation(sumsBySession(first, worth), sumsBySession(second, worth));
  if (lots === null) return { by: "between", difference: null, interval: null, p: null, sessions: 0, called: false, sentence: words.empty };
  const p = acrossSpells(lots.p, spellFactor([...datedSums(first, false, worth), ...datedSums(second, true, worth)]));
  const called = p < CALLED_AT;
  const enough = same === null && Math.min(lots.first, lots.second) >= FEWEST_BETWEEN;
  return {
    by: same === null ? "between" : "same rungs",
    difference: lots.difference,
    interval: enough ? interval() : null,
    p,
    sessions: lots.first + lots.second,
    called,
    sentence: say(
      called,
      lots.difference,
      `${same === null ? "" : "on the same rungs "}${counted(lots.first, "session")} against ${lots.second}`,
    ),
  };
}

/** How surely a session of the first set began before one of the second: ½ where they lie among each other. */
function before(first: SetOfTrials, second: SetOfTrials): number {
  const starts = (set: SetOfTrials) => [...new Set(set.trials.map(({ session }) => set.past.sessions[session]?.startedMs ?? 0))];
  const a = starts(first);
  const b = starts(second);
  let sum = 0;
  for (const x of a) for (const y of b) sum += x < y ? 1 : x === y ? 0.5 : 0;
  return a.length * b.length === 0 ? 0.5 : sum / (a.length * b.length);
}

const oneOf = (set: SetOfTrials, of: (trial: PastTrial, set: SetOfTrials) => string | null) => {
  const values = new Set(set.trials.map((trial) => of(trial, set) ?? ""));
  return values.size === 1 ? [...values][0] : null;
};

/** In what else two sets differ, wholly: each a reason that may lie behind a difference. */
const MAY_DIFFER: readonly (readonly [string, (trial: PastTrial, set: SetOfTrials) => string | null])[] = [
  ["handler", ({ handler }) => handler],
  ["place", ({ session }, { past }) => past.sessions[session]?.place ?? null],
  ["rung", ({ ladder, version, rung }) => (rung === null ? null : JSON.stringify([ladder, version, rung]))],
  ["side", ({ side }) => side],
  ["horse", ({ session }, { past }) => past.sessions[session]?.horse ?? null],
];

/** Shares of trials by rung that two sets do not have in common, 0 to 1. */
function apartInRungs(first: SetOfTrials, second: SetOfTrials): number {
  const shares = (set: SetOfTrials) => {
    const counts = new Map<string, number>();
    for (const { ladder, version, rung } of set.trials) {
      const key = JSON.stringify([ladder, version, rung]);
      counts.set(key, (counts.get(key) ?? 0) + 1 / set.trials.length);
    }
    return counts;
  };
  const [a, b] = [shares(first), shares(second)];
  return 1 - [...a].reduce((sum, [key, share]) => sum + Math.min(share, b.get(key) ?? 0), 0);
}
const FAR_APART = 0.5;

function cautionsOf(first: SetOfTrials, second: SetOfTrials, by: ByWhat): string[] {
  if (first.trials.length === 0 || second.trials.length === 0) return [];
  const cautions: string[] = [];
  const order = before(first, second);
  if (order > IN_ORDER) cautions.push("A lies mostly before B: what the horse learnt in between counts too.");
  if (order < 1 - IN_ORDER) cautions.push("B lies mostly before A: what the horse learnt in between counts too.");
  const also = MAY_DIFFER.flatMap(([name, of]) => {
    const a = oneOf(first, of);
    const b = oneOf(second, of);
    return a !== null && b !== null && a !== b && a !== "" && b !== "" ? [name] : [];
  });
  if (also.length > 1) cautions.push(`The two differ in more than one thing: ${also.join(", ")}. Which of them counts cannot be told.`);
  if (by === "between" && !also.includes("rung") && apartInRungs(first, second) > FAR_APART)
    cautions.push("They were mostly worked on different rungs, so one may have been asked for more.");
  const shared = first.trials.some((trial) =>
    second.trials.some((other) => idOf(first, trial) === idOf(second, other) && trial.number === other.number),
  );
  if (shared) cautions.push("Some trials are in both, which makes them look more alike.");
  return cautions;
}

const waitings = (trials: readonly PastTrial[]): Waiting[] =>
  trials.flatMap(({ outcome, latencySeconds, waitedSeconds }) => {
    const answered = (outcome === "met" || outcome === "try") && latencySeconds !== null;
    const seconds = answered ? latencySeconds : (waitedSeconds ?? latencySeconds);
    return seconds === null ? [] : [{ seconds, answered }];
  });

/**
 * Any two sets of trials held against each other. Trials of one session
 * resemble each other, so what leads compares within sessions on the same
 * rungs where two hold both, or else session with session, on the same rungs
 * where they have them; what takes every trial as independent
 * (Newcombe 1998, method 10; Mantel 1966; two Poisson rates, exact) stands
 * beside it. Called at p < 0.01, since one looks again and again.
 * @example contrastSets(before, after).share.sentence // "No difference of shares shown yet, 6 sessions against 5."
 */
export function contrastSets(first: SetOfTrials, second: SetOfTrials): SetContrast {
  const a = setOf(first);
  const b = setOf(second);
  const share = leading(first, second, metWorth, SHARE_WORDS, () => intervalBetween(first, second));
  return {
    first: a,
    second: b,
    share,
    latency: leading(first, second, timeWorth, TIME_WORDS, () => null),
    plain: {
      share: shareDifference(a.share, b.share),
      latency: logRank([waitings(first.trials), waitings(second.trials)]),
      rate: a.minutes > 0 && b.minutes > 0 ? rateRatio({ count: b.met, minutes: b.minutes }, { count: a.met, minutes: a.minutes }) : null,
    },
    cautions: cautionsOf(first, second, share.by),
  };
}
