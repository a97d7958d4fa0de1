import { type CountedRate, type Interval, LEAST_MINUTES_FOR_RATE, sessionRate, unusualRate } from "../evidence";
import { SIGN_CLASSES, SIGN_KINDS, type SignClass, type SignKind } from "../signs";

export { SIGN_CLASSES, SIGN_KINDS, SIGNS, type SignClass, type SignKind } from "../signs";

/** Signs of one stretch of watching or work. */
export interface SignCounts {
  readonly minutes: number;
  readonly byClass: Readonly<Record<SignClass, number>>;
  /** Signs tapped by name. */
  readonly byName: Readonly<Record<SignKind, Readonly<Record<string, number>>>>;
}

/** No sign of any name. @example noNames() // { ease: {}, tension: {}, danger: {}, pain: {}, count: {} } */
export const noNames = (): Record<SignKind, Record<string, number>> => ({ ease: {}, tension: {}, danger: {}, pain: {}, count: {} });

export const NO_SIGNS: SignCounts = { minutes: 0, byClass: { ease: 0, tension: 0, danger: 0, pain: 0 }, byName: noNames() };

/** Adds stretches up. @example addSigns(stretches) // { minutes: 12, … } */
export function addSigns(stretches: readonly SignCounts[]): SignCounts {
  const byClass: Record<SignClass, number> = { ease: 0, tension: 0, danger: 0, pain: 0 };
  const byName = noNames();
  let minutes = 0;
  for (const stretch of stretches) {
    minutes += stretch.minutes;
    for (const kind of SIGN_CLASSES) byClass[kind] += stretch.byClass[kind] ?? 0;
    for (const kind of SIGN_KINDS)
      for (const [name, n] of Object.entries(stretch.byName[kind] ?? {})) byName[kind][name] = (byName[kind][name] ?? 0) + n;
  }
  return { minutes, byClass, byName };
}

/** A rate per ten minutes over sessions. */
export interface SignRate {
  readonly count: number;
  readonly minutes: number;
  readonly perTenMinutes: number;
  /** 95 %; null over two sessions. Of one session it is of that session alone. */
  readonly interval: Interval | null;
  readonly sessions: number;
}

const countedOf = ({ minutes, byClass }: SignCounts, kind: SignClass): CountedRate => ({ count: byClass[kind] ?? 0, minutes });

/** Stretches long enough for a rate: a moment with no sign in it says nothing of a day. @example longEnough(sessions, 2) // 2 of them */
export const longEnough = (sessions: readonly SignCounts[], leastMinutes: number = LEAST_MINUTES_FOR_RATE): SignCounts[] =>
  sessions.filter(({ minutes }) => minutes >= leastMinutes);

/**
 * How often a class of signs was shown, session by session.
 * @returns null where nothing was watched for `leastMinutes` or longer; shorter stretches are left out.
 * @example signRate([{ ...NO_SIGNS, minutes: 10 }], "danger")?.perTenMinutes // 0
 */
export function signRate(sessions: readonly SignCounts[], kind: SignClass, leastMinutes: number = LEAST_MINUTES_FOR_RATE): SignRate | null {
  const rate = sessionRate(longEnough(sessions, leastMinutes).map((one) => countedOf(one, kind)));
  if (rate === null) return null;
  const { count, minutes, perMinute, interval, sessions: k } = rate;
  return {
    count,
    minutes,
    perTenMinutes: 10 * perMinute,
    interval: interval === null ? null : [10 * interval[0], 10 * interval[1]],
    sessions: k,
  };
}

/** A session beside the horse's own usual. */
export interface SignComparison {
  readonly kind: SignClass;
  readonly here: SignRate;
  readonly usual: SignRate;
  readonly unusual: boolean;
  readonly words: string;
}

/**
 * Compares a session's signs with what this horse usually shows at the same
 * thing, by sessions, since signs come in bouts and days; see unusualRate.
 * @param earlier the sessions that make its usual.
 * @returns null where there is no usual yet: under four sessions of `leastMinutes`.
 * @example compareSigns(here, earlier, "tension") // { kind: "tension", unusual: true, … }
 */
export function compareSigns(
  here: SignCounts,
  earlier: readonly SignCounts[],
  kind: SignClass,
  leastMinutes: number = LEAST_MINUTES_FOR_RATE,
): SignComparison | null {
  const found = unusualRate(
    countedOf(here, kind),
    earlier.map((one) => countedOf(one, kind)),
    leastMinutes,
  );
  const own = signRate([here], kind, leastMinutes);
  const before = signRate(earlier, kind, leastMinutes);
  if (found === null || own === null || before === null) return null;
  const what = `${kind} signs`;
  const numbers = `${own.perTenMinutes.toFixed(1)} ${what} in ten minutes, in ${found.sessions} earlier sessions ${before.perTenMinutes.toFixed(1)}`;
  const words = !found.unusual ? `${numbers}: no difference shown.` : `${numbers}: ${found.above ? "more" : "fewer"} than usual.`;
  return { kind, here: own, usual: before, unusual: found.unusual, words };
}

/**
 * The names shown most, with their counts.
 * @example commonestSigns({ … }, "ease") // [{ name: "blows out", n: 4 }, { name: "lowers head", n: 2 }]
 */
export function commonestSigns({ byName }: SignCounts, kind: SignKind, most = 3): { readonly name: string; readonly n: number }[] {
  return Object.entries(byName[kind])
    .map(([name, n]) => ({ name, n }))
    .sort((a, b) => b.n - a.n || (a.name < b.name ? -1 : 1))
    .slice(0, most);
}
