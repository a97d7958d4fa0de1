import { type SurvivalCurve, survival, type Waiting } from "../evidence";
import { endOfWorkMs, type SessionRecord, until } from "../record";
import { percentWords } from "../words";

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

const NOTHING = {
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

/**
 * Sums a session up by the zones tapped in it. A zone lasts until the next one
 * is tapped. Pressure is the time from an ask to its release, refusal or what
 * else ended it; a tally has none unless its waiting was noted. Time in breaks
 * belongs to no zone.
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
  for (const trial of record.trials) {
    if (trial.zone === null) continue;
    const sum = sumOf(trial.zone);
    sum.trials++;
    if (trial.outcome === "met") sum.met++;
    const timed = trial.logged === "timed" || trial.logged === "film";
    const seconds = timed ? (trial.endMs - trial.askMs) / 1000 : trial.waitedSeconds;
    if (seconds === null) sum.untimed++;
    else sum.pressureSeconds += seconds;
    if (trial.released === true) sum.releases++;
    sum.reinforcers += (trial.reinforcers ?? 0) + trial.reinforcerKinds.length;
  }
  for (const fact of record.facts) {
    if (fact.type !== "signal") continue;
    const zone = stretches.find(({ startMs, endMs: untilMs }) => startMs <= fact.ms && fact.ms < untilMs)?.zone ?? null;
    if (zone === null) continue;
    if (fact.payload.class === "ease") sumOf(zone).easeSigns++;
    else sumOf(zone).tensionSigns++;
  }
  return {
    zones: [...sums].map(([zone, counts]) => ({ zone, ...counts })),
    stays,
    secondsElsewhere,
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

/** Time in a zone below this says nothing of it, in seconds (a setting; common practice, no source). */
export const LEAST_SECONDS_TO_TELL = 60;
/** Sessions in a zone below this say nothing of it. */
export const LEAST_SESSIONS_TO_TELL = 2;

function answerOf(zones: readonly ZoneRelief[]): string {
  if (zones.length === 0) return "No zone was tapped yet.";
  const told = zones
    .filter((z) => z.seconds >= LEAST_SECONDS_TO_TELL && z.sessions >= LEAST_SESSIONS_TO_TELL && z.pressureShare !== null)
    .sort((a, b) => (a.pressureShare ?? 0) - (b.pressureShare ?? 0));
  const easiest = told[0];
  const hardest = told.at(-1);
  if (easiest === undefined || hardest === undefined || told.length < 2)
    return `Too little to tell: a zone needs ${LEAST_SECONDS_TO_TELL} s of timed work in ${LEAST_SESSIONS_TO_TELL} sessions, and two such zones.`;
  if (hardest.pressureShare === easiest.pressureShare) return "No zone stands out.";
  return `Easier at ${easiest.zone}: under pressure ${percentWords(easiest.pressureShare ?? 0)} of the time there, against ${percentWords(hardest.pressureShare ?? 0)} at ${hardest.zone}.`;
}

/** Adds sessions of one place up. Cost grows with sessions × zones. */
export function reliefMap(sessions: readonly SessionRelief[]): ReliefMap {
  const sums = new Map<string, Counts & { sessions: number }>();
  let secondsElsewhere = 0;
  for (const session of sessions) {
    secondsElsewhere += session.secondsElsewhere;
    for (const { zone, ...counts } of session.zones) {
      const sum = sums.get(zone) ?? { ...NOTHING, sessions: 0 };
      for (const key of Object.keys(NOTHING) as (keyof Counts)[]) sum[key] += counts[key];
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
        pressureShare: sum.seconds > 0 && sum.untimed * 2 <= sum.trials ? Math.min(1, sum.pressureSeconds / sum.seconds) : null,
      };
    })
    .sort((a, b) => b.seconds - a.seconds || (a.zone < b.zone ? -1 : 1));
  return { zones, sessions: sessions.length, secondsElsewhere, sentence: answerOf(zones) };
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
