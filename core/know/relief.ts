import { type SurvivalCurve, survival, type Waiting } from "../evidence";
import type { SessionRecord } from "../session";
import { endOfWorkMs } from "../session";

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

interface Change {
  readonly ms: number;
  readonly zone: string | null;
  /** A moment the work itself ends or pauses: a stay that runs then is cut off, not left. */
  readonly cut: boolean;
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

const text = (value: unknown) => (typeof value === "string" && value !== "" ? value : null);

/** Where the horse was, as changes in time; a departure leads to the zone tapped while it was away, and a return back to where it left. */
function zoneChanges(
  record: SessionRecord,
  endMs: number,
): { changes: Change[]; departures: { from: string | null; to: string | null }[] } {
  const changes: Change[] = [];
  const departures: { from: string | null; to: string | null }[] = [];
  let zone: string | null = null;
  let away: { from: string | null; to: string | null } | null = null;
  const go = (ms: number, next: string | null) => {
    if (next !== zone) changes.push({ ms, zone: next, cut: false });
    zone = next;
  };
  for (const fact of record.facts) {
    if (fact.ms < 0 || fact.ms > endMs) {
      // A zone tapped before work begins still says where it begins.
      if (fact.type === "zone" && fact.ms < 0) go(0, text(fact.payload.zone));
      continue;
    }
    switch (fact.type) {
      case "zone": {
        const next = text(fact.payload.zone);
        if (away !== null && away.to === null) away.to = next;
        go(fact.ms, next);
        break;
      }
      case "depart": {
        if (away !== null) break;
        away = { from: text(fact.payload.from) ?? zone, to: text(fact.payload.to) };
        departures.push(away);
        go(fact.ms, away.to);
        break;
      }
      case "return":
        if (away === null) break;
        go(fact.ms, text(fact.payload.to) ?? away.from);
        away = null;
        break;
    }
  }
  return { changes, departures };
}

/** Cuts the zone's time line at breaks and at the end of work. */
function withPauses(record: SessionRecord, changes: readonly Change[], endMs: number): Change[] {
  const out = [...changes];
  const zoneAt = (ms: number) => changes.findLast((change) => change.ms <= ms)?.zone ?? null;
  for (const pause of record.breaks) {
    const until = pause.endMs ?? endMs;
    for (let i = out.length - 1; i >= 0; i--) {
      const ms = out[i]?.ms ?? 0;
      if (ms > pause.startMs && ms < until) out.splice(i, 1);
    }
    out.push({ ms: pause.startMs, zone: null, cut: true }, { ms: until, zone: zoneAt(until), cut: false });
  }
  return [...out.sort((a, b) => a.ms - b.ms), { ms: endMs, zone: null, cut: true }];
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
  const { changes, departures } = zoneChanges(record, endMs);
  const line = withPauses(record, changes, endMs);
  const stays: ZoneStay[] = [];
  let secondsElsewhere = 0;
  let here: { zone: string | null; fromMs: number } = { zone: null, fromMs: 0 };
  let paused = false;
  for (const change of line) {
    const seconds = Math.max(0, change.ms - here.fromMs) / 1000;
    if (here.zone !== null) {
      sumOf(here.zone).seconds += seconds;
      if (change.zone !== here.zone || change.cut) stays.push({ zone: here.zone, seconds, left: !change.cut });
    } else if (!paused) secondsElsewhere += seconds;
    paused = change.cut;
    here = { zone: change.zone, fromMs: change.ms };
  }
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
    const zone = line.findLast((change) => change.ms <= fact.ms)?.zone ?? null;
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

const percent = (share: number) => `${Math.round(share * 100)} %`;

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
  return `Easier at ${easiest.zone}: under pressure ${percent(easiest.pressureShare ?? 0)} of the time there, against ${percent(hardest.pressureShare ?? 0)} at ${hardest.zone}.`;
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
