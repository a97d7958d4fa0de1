import {
  CALLED_AT,
  FEWEST_SESSIONS,
  ORDER_VARIED,
  type PlacedSession,
  placeTakenOut,
  type SurvivalCurve,
  signFlip,
  survival,
  type Waiting,
  type WeighedDifference,
} from "../evidence";
import { meetsPressure } from "../ladder";
import { endOfWorkMs, type SessionRecord, until } from "../record";
import { keysOf } from "../typed";
import { counted, percentWords } from "../words";

/** What one session showed in one zone. Seconds of working time. */
export interface ZoneSums {
  readonly zone: string;
  readonly seconds: number;
  readonly pressureSeconds: number;
  readonly releases: number;
  readonly reinforcers: number;
  readonly departuresFrom: number;
  readonly departuresTo: number;
  readonly trials: number;
  readonly met: number;
  readonly easeSigns: number;
  readonly tensionSigns: number;
  /** Trials whose pressure was not timed, so that none of it stands in `pressureSeconds`. */
  readonly untimed: number;
  /** Wrong choices that met pressure, and those of them that were not timed. */
  readonly wrongs: number;
  readonly untimedWrongs: number;
}

/** A stay in a zone: how long, and whether the horse left it (otherwise the work ended first). */
export interface ZoneStay {
  readonly zone: string;
  readonly seconds: number;
  readonly left: boolean;
}

/** One session's relief. */
export interface SessionRelief {
  readonly zones: readonly ZoneSums[];
  readonly stays: readonly ZoneStay[];
  /** Working seconds with no zone logged. */
  readonly secondsElsewhere: number;
  readonly departures: number;
}

/** A zone in which nothing happened. */
export const NOTHING = {
  seconds: 0,
  pressureSeconds: 0,
  releases: 0,
  reinforcers: 0,
  departuresFrom: 0,
  departuresTo: 0,
  trials: 0,
  met: 0,
  easeSigns: 0,
  tensionSigns: 0,
  untimed: 0,
  wrongs: 0,
  untimedWrongs: 0,
};

type Counts = { -readonly [K in keyof typeof NOTHING]: number };

/** A stretch of work in one zone or in none. `cut` where the work itself ended or paused it, so that the horse did not leave. */
interface Stretch {
  readonly zone: string | null;
  readonly startMs: number;
  readonly endMs: number;
  readonly cut: boolean;
}

/** The time line's zones from the start of work to its end, without what is no work. */
function stretchesOf({ timeLine: { zones, breaks } }: SessionRecord, endMs: number): Stretch[] {
  const pauses = until(breaks, endMs).filter((pause) => pause.endMs > pause.startMs);
  const first = zones[0]?.startMs ?? endMs;
  const all = [...(first > 0 ? [{ zone: null, startMs: 0, endMs: Math.min(first, endMs) }] : []), ...until(zones, endMs)];
  return all.flatMap(({ zone, startMs, endMs: leftMs }) => {
    const out: Stretch[] = [];
    let from = Math.max(0, startMs);
    for (const pause of pauses) {
      if (pause.endMs <= from || pause.startMs >= leftMs) continue;
      if (pause.startMs > from) out.push({ zone, startMs: from, endMs: pause.startMs, cut: true });
      from = pause.endMs;
    }
    if (from < leftMs) out.push({ zone, startMs: from, endMs: leftMs, cut: leftMs === endMs });
    return out;
  });
}

/** Wrong choices that met pressure while work went on; those that were one tap have no length. */
const pressingSpans = ({ timeLine: { wrongs } }: SessionRecord, endMs: number) =>
  until(
    wrongs.filter(({ startMs, met }) => startMs >= 0 && meetsPressure(met)),
    endMs,
  );

const toMs = (seconds: number) => Math.round(seconds * 1000) / 1000;

/**
 * Sums a session up by the zones tapped in it. A zone lasts until the next one
 * is tapped. Pressure is the time from an ask to its release, refusal or what
 * else ended it; a tally has none unless its waiting was noted. What wrong
 * choices met is pressure too, where it happened, and is counted once where an
 * ask went on meanwhile. Time in breaks belongs to no zone.
 * @example reliefOfSession(record) // { secondsElsewhere: 1, departures: 0, … }
 */
export function reliefOfSession(record: SessionRecord): SessionRelief {
  const endMs = endOfWorkMs(record);
  const sums = new Map<string, Counts>();
  const sumOf = (zone: string) => {
    const found = sums.get(zone) ?? { ...NOTHING };
    sums.set(zone, found);
    return found;
  };
  const stretches = stretchesOf(record, endMs);
  const stays: ZoneStay[] = [];
  let secondsElsewhere = 0;
  for (const { zone, startMs, endMs: untilMs, cut } of stretches) {
    const seconds = (untilMs - startMs) / 1000;
    if (zone === null) secondsElsewhere += seconds;
    else {
      sumOf(zone).seconds += seconds;
      stays.push({ zone, seconds, left: !cut });
    }
  }
  const departures = record.timeLine.departures.filter(({ startMs }) => startMs >= 0 && startMs <= endMs);
  for (const { from, to } of departures) {
    if (from !== null) sumOf(from).departuresFrom++;
    if (to !== null) sumOf(to).departuresTo++;
  }
  const pressing = pressingSpans(record, endMs);
  for (const { zone: said, startMs, endMs: untilMs, timed } of pressing) {
    const parts = stretches.filter((stretch) => stretch.startMs < untilMs && stretch.endMs > startMs);
    const at = stretches.find((stretch) => stretch.startMs <= startMs && startMs < stretch.endMs)?.zone ?? said;
    if (at !== null) {
      const sum = sumOf(at);
      sum.wrongs++;
      if (!timed) sum.untimedWrongs++;
    }
    for (const part of parts) {
      const zone = part.zone ?? said;
      if (zone === null) continue;
      const seconds = (Math.min(part.endMs, untilMs) - Math.max(part.startMs, startMs)) / 1000;
      sumOf(zone).pressureSeconds += seconds;
      // Said with the choice alone: the horse was there for as long as it took.
      if (part.zone === null) {
        sumOf(zone).seconds += seconds;
        secondsElsewhere -= seconds;
      }
    }
  }
  /** Seconds of an ask in which a wrong choice met pressure: they are counted there. */
  const countedThere = (fromMs: number, toMs: number) =>
    pressing.reduce((sum, span) => sum + Math.max(0, Math.min(toMs, span.endMs) - Math.max(fromMs, span.startMs)), 0) / 1000;
  for (const trial of record.trials) {
    if (trial.zone === null) continue;
    const sum = sumOf(trial.zone);
    sum.trials++;
    if (trial.outcome === "met") sum.met++;
    const timed = trial.logged === "timed" || trial.logged === "film";
    const seconds = timed ? (trial.endMs - trial.askMs) / 1000 - countedThere(trial.askMs, trial.endMs) : trial.waitedSeconds;
    if (seconds === null) sum.untimed++;
    else sum.pressureSeconds += seconds;
    if (trial.released === true) sum.releases++;
    sum.reinforcers += (trial.reinforcers ?? 0) + trial.reinforcerKinds.length;
  }
  for (const fact of record.facts) {
    if (fact.type !== "signal" || fact.payload.class === "count") continue;
    const zone = stretches.find(({ startMs, endMs: untilMs }) => startMs <= fact.ms && fact.ms < untilMs)?.zone ?? null;
    if (zone === null) continue;
    if (fact.payload.class === "ease") sumOf(zone).easeSigns++;
    else sumOf(zone).tensionSigns++;
  }
  return {
    // Sums of seconds to the millisecond they were tapped in.
    zones: [...sums].map(([zone, { seconds, pressureSeconds, ...counts }]) => ({
      zone,
      ...counts,
      seconds: toMs(seconds),
      pressureSeconds: toMs(pressureSeconds),
    })),
    stays,
    secondsElsewhere: toMs(secondsElsewhere),
    departures: departures.length,
  };
}

/** One zone over all sessions of a place. */
export interface ZoneRelief extends ZoneSums {
  readonly sessions: number;
  /** Seconds in the zone with no ask. Never below 0, also where the pressure of a trial outlasted the zone. */
  readonly easySeconds: number;
  /** Share of the time in the zone that was under pressure; null where no time was logged, or most asks there were not timed. */
  readonly pressureShare: number | null;
}

/** The relief map: every zone, what it says, and for an entrance the inside against the outside. */
export interface ReliefMap {
  readonly zones: readonly ZoneRelief[];
  readonly sessions: number;
  readonly secondsElsewhere: number;
  readonly sentence: string;
}

/** One zone held against the rest of its sessions. */
export interface ZoneContrast {
  readonly zone: string;
  readonly sessions: number;
  /** Share of the time under pressure there less that elsewhere, weighed over sessions. */
  readonly difference: number;
  /** After every zone of the place was looked at; with the place in the session taken out. */
  readonly p: number;
  /** The same were the order of no account; 1 where it has varied. */
  readonly pAsItCame: number;
  readonly here: number;
  readonly elsewhere: number;
}

type ZoneTimes = Pick<ZoneSums, "seconds" | "untimed" | "trials" | "wrongs" | "untimedWrongs">;

/** Whether the pressure of a zone in a session can be said: most of what pressed there was timed. */
const isTimed = ({ seconds, untimed, trials, untimedWrongs, wrongs }: ZoneTimes) =>
  seconds > 0 && (untimed + untimedWrongs) * 2 <= trials + wrongs;

const pressureIn = ({ pressureSeconds, seconds }: Pick<ZoneSums, "pressureSeconds" | "seconds">) => Math.min(seconds, pressureSeconds);

/** On the mean of the time spent there, zones may lie so much of a session apart for them to have taken turns. */
const TURNS_WITHIN = 1 / 8;

/** The middle of the time a session spent in each zone, as a share of the time it spent in zones. */
function middles({ stays }: SessionRelief): ReadonlyMap<string, number> {
  const sums = new Map<string, { seconds: number; moment: number }>();
  let at = 0;
  for (const { zone, seconds } of stays) {
    const sum = sums.get(zone) ?? { seconds: 0, moment: 0 };
    sum.moment += seconds * (at + seconds / 2);
    sum.seconds += seconds;
    sums.set(zone, sum);
    at += seconds;
  }
  return new Map([...sums].flatMap(([zone, { seconds, moment }]) => (seconds > 0 ? [[zone, moment / seconds / at]] : [])));
}

/** Each timed zone of a session against the rest of it, in the order in which they came; null where fewer than two were timed. */
function placedOf(session: SessionRelief): PlacedSession | null {
  const timed = session.zones.filter(isTimed);
  if (timed.length < 2) return null;
  const middle = middles(session);
  // Where no stay of one is known they came as they were first named, one as a whole before the other.
  const known = timed.every(({ zone }) => middle.has(zone));
  const at = ({ zone }: ZoneSums) => (known ? (middle.get(zone) ?? 0) : session.zones.findIndex((one) => one.zone === zone));
  const inOrder = [...timed].sort((a, b) => at(a) - at(b));
  const all = timed.reduce((sum, one) => ({ seconds: sum.seconds + one.seconds, pressure: sum.pressure + pressureIn(one) }), {
    seconds: 0,
    pressure: 0,
  });
  return {
    inOrder: inOrder.map((one) => {
      const rest = { seconds: all.seconds - one.seconds, pressure: all.pressure - pressureIn(one) };
      return {
        what: one.zone,
        difference: pressureIn(one) / one.seconds - rest.pressure / rest.seconds,
        weight: (one.seconds * rest.seconds) / all.seconds,
      };
    }),
    tookTurns: at(inOrder.at(-1) as ZoneSums) - at(inOrder[0] as ZoneSums) <= TURNS_WITHIN,
    kind: "zones",
  };
}

/**
 * Each zone against the rest, by sessions: the difference of the shares of time
 * under pressure in one session, weighed by seconds, t₁t₂/(t₁ + t₂). A horse
 * that begins cold or softens within the session makes the zone it comes to
 * last look easy, so the place in the session is taken out; p times the number
 * of zones.
 * @example zoneContrasts(sessions) // 2 of them
 */
export function zoneContrasts(sessions: readonly SessionRelief[]): ZoneContrast[] {
  const placed = sessions.flatMap((session) => placedOf(session) ?? []);
  const names = [...new Set(placed.flatMap(({ inOrder }) => inOrder.map(({ what }) => what)))].sort();
  const found = names.flatMap((zone) => {
    const out = placeTakenOut(placed, zone);
    if (out === null) return [];
    let here = { seconds: 0, pressure: 0 };
    let elsewhere = { seconds: 0, pressure: 0 };
    const differences = placed.flatMap(({ inOrder }): WeighedDifference[] => inOrder.filter(({ what }) => what === zone));
    for (const { zones } of sessions) {
      const timed = zones.filter(isTimed);
      if (timed.length < 2 || !timed.some((one) => one.zone === zone)) continue;
      for (const one of timed) {
        const sum = { seconds: one.seconds, pressure: pressureIn(one) };
        if (one.zone === zone) here = { seconds: here.seconds + sum.seconds, pressure: here.pressure + sum.pressure };
        else elsewhere = { seconds: elsewhere.seconds + sum.seconds, pressure: elsewhere.pressure + sum.pressure };
      }
    }
    const weight = differences.reduce((sum, one) => sum + one.weight, 0);
    const asItCame = differences.reduce((sum, one) => sum + one.weight * one.difference, 0) / weight;
    const difference = out.difference ?? 0;
    return [
      {
        zone,
        sessions: out.n,
        difference,
        // What the shares beside it show the other way round is not called on them.
        p: difference * asItCame > 0 ? out.p : 1,
        pAsItCame: out.kept < ORDER_VARIED ? (signFlip(differences)?.p ?? 1) : 1,
        here: here.pressure / here.seconds,
        elsewhere: elsewhere.pressure / elsewhere.seconds,
      },
    ];
  });
  // Two zones alone are one comparison, seen from either side.
  const looks = found.length === 2 ? 1 : found.length;
  return found.map((one) => ({ ...one, p: Math.min(1, one.p * looks), pAsItCame: Math.min(1, one.pAsItCame * looks) }));
}

/** The first in a list by p, among equals by the larger difference. */
const clearest = (list: readonly ZoneContrast[]) =>
  [...list].sort((a, b) => a.p - b.p || Math.abs(b.difference) - Math.abs(a.difference))[0];

function answerOf(sessions: readonly SessionRelief[]): string {
  if (!sessions.some(({ zones }) => zones.length > 0)) return "No zone was tapped yet.";
  const contrasts = zoneContrasts(sessions);
  if (contrasts.length === 0) return "Too little to tell: timed work in two zones of one session is compared.";
  const called = contrasts.filter(({ p }) => p < CALLED_AT);
  const numbers = ({ here, elsewhere, sessions: n }: ZoneContrast) =>
    `under pressure ${percentWords(here)} of the time there, ${percentWords(elsewhere)} elsewhere, in ${counted(n, "session")}.`;
  const easier = clearest(called.filter(({ difference }) => difference < 0));
  if (easier !== undefined) return `Easier at ${easier.zone}: ${numbers(easier)}`;
  const harder = clearest(called);
  if (harder !== undefined) return `Harder at ${harder.zone}: ${numbers(harder)}`;
  const byOrder = [...contrasts].sort((a, b) => a.pAsItCame - b.pAsItCame)[0];
  if (byOrder !== undefined && byOrder.pAsItCame < CALLED_AT)
    return `No zone can be called: in ${counted(byOrder.sessions, "session")} the order varied too little to tell ${byOrder.zone} from warming up or tiring. Start somewhere else next time.`;
  return `No zone stands out: compared in ${counted(Math.max(...contrasts.map((one) => one.sessions)), "session")}, and it takes ${FEWEST_SESSIONS} or more.`;
}

/** Adds sessions of one place up. Cost grows with sessions × zones. @example reliefMap([]) // { sessions: 0, secondsElsewhere: 0, … } */
export function reliefMap(sessions: readonly SessionRelief[]): ReliefMap {
  const sums = new Map<string, Counts & { sessions: number }>();
  let secondsElsewhere = 0;
  for (const session of sessions) {
    secondsElsewhere += session.secondsElsewhere;
    for (const { zone, ...counts } of session.zones) {
      const sum = sums.get(zone) ?? { ...NOTHING, sessions: 0 };
      for (const key of keysOf(NOTHING)) sum[key] += counts[key];
      sum.sessions++;
      sums.set(zone, sum);
    }
  }
  const zones = [...sums]
    .map(([zone, sum]): ZoneRelief => {
      const easySeconds = Math.max(0, sum.seconds - sum.pressureSeconds);
      return {
        zone,
        ...sum,
        easySeconds,
        pressureShare: isTimed(sum) ? pressureIn(sum) / sum.seconds : null,
      };
    })
    .sort((a, b) => b.seconds - a.seconds || (a.zone < b.zone ? -1 : 1));
  return { zones, sessions: sessions.length, secondsElsewhere, sentence: answerOf(sessions) };
}

/** An entrance: ease inside against pressure outside, and how long the horse stays in. */
export interface EntranceRelief {
  readonly insideEasySeconds: number;
  readonly insidePressureSeconds: number;
  readonly outsideEasySeconds: number;
  readonly outsidePressureSeconds: number;
  /** Time to leaving the inside; a stay that the work cut off is censored. */
  readonly stays: SurvivalCurve;
}

/**
 * Work at an entrance.
 * @param inside names of zones inside; `outside` of those before it.
 * @returns null where neither was ever tapped.
 * @example entranceRelief(sessions, ["inside"], ["before"])
 */
export function entranceRelief(
  sessions: readonly SessionRelief[],
  inside: readonly string[],
  outside: readonly string[],
): EntranceRelief | null {
  const { zones } = reliefMap(sessions);
  const sum = (names: readonly string[], of: (zone: ZoneRelief) => number) =>
    zones.reduce((all, zone) => (names.includes(zone.zone) ? all + of(zone) : all), 0);
  if (!zones.some(({ zone }) => inside.includes(zone) || outside.includes(zone))) return null;
  const waits: Waiting[] = sessions
    .flatMap((session) => session.stays)
    .filter(({ zone }) => inside.includes(zone))
    .map(({ seconds, left }) => ({ seconds, answered: left }));
  return {
    insideEasySeconds: sum(inside, (z) => z.easySeconds),
    insidePressureSeconds: sum(inside, (z) => z.pressureSeconds),
    outsideEasySeconds: sum(outside, (z) => z.easySeconds),
    outsidePressureSeconds: sum(outside, (z) => z.pressureSeconds),
    stays: survival(waits),
  };
}
