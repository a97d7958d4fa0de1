import { type CountedRate, type Interval, poissonInterval, rateDifferenceP } from "../evidence";

export const SIGN_CLASSES = ["ease", "tension", "danger"] as const;
export type SignClass = (typeof SIGN_CLASSES)[number];

/** The signs of each class that can be tapped by name. */
export const SIGNS: Readonly<Record<SignClass, readonly string[]>> = {
  ease: ["licks and chews", "lowers head", "blows out", "softens eye", "ear on handler", "rests a hind foot", "deep breath"],
  tension: ["head high", "tail swishes", "paws", "calls", "fixed stare", "rushes", "braces", "bites at", "threatens to kick"],
  danger: ["rears", "strikes", "kicks", "bolts", "pulls back", "falls"],
};

export const REST_BEHAVIOUR = "Signs at rest";

/** Signs of one stretch of watching or work. */
export interface SignCounts {
  readonly minutes: number;
  readonly byClass: Readonly<Record<SignClass, number>>;
  /** Signs tapped by name. */
  readonly byName: Readonly<Record<string, number>>;
}

export const NO_SIGNS: SignCounts = { minutes: 0, byClass: { ease: 0, tension: 0, danger: 0 }, byName: {} };

/** Adds stretches up. */
export function addSigns(stretches: readonly SignCounts[]): SignCounts {
  const byClass: Record<SignClass, number> = { ease: 0, tension: 0, danger: 0 };
  const byName: Record<string, number> = {};
  let minutes = 0;
  for (const stretch of stretches) {
    minutes += stretch.minutes;
    for (const kind of SIGN_CLASSES) byClass[kind] += stretch.byClass[kind];
    for (const [name, n] of Object.entries(stretch.byName)) byName[name] = (byName[name] ?? 0) + n;
  }
  return { minutes, byClass, byName };
}

/** A rate per ten minutes with its 95 % interval. */
export interface SignRate {
  readonly count: number;
  readonly minutes: number;
  readonly perTenMinutes: number;
  readonly interval: Interval;
}

/** How often a class of signs was shown; null where nothing was watched. */
export function signRate({ minutes, byClass }: SignCounts, kind: SignClass): SignRate | null {
  if (!(minutes > 0)) return null;
  const count = byClass[kind];
  return { count, minutes, perTenMinutes: (10 * count) / minutes, interval: poissonInterval(count, minutes / 10) };
}

/** A session beside the horse's own usual. */
export interface SignComparison {
  readonly kind: SignClass;
  readonly here: SignRate;
  readonly usual: SignRate;
  /** Null where nothing was seen in either. */
  readonly p: number | null;
  readonly words: string;
}

/** A difference with a smaller p is said to be one. */
const SAID_AT = 0.05;

/** Minutes of earlier work below which there is no usual to compare with. */
export const LEAST_USUAL_MINUTES = 20;

/**
 * Compares a session's signs with what this horse usually shows at the same
 * thing, by the exact conditional test of two rates.
 * @returns null where there is no usual yet.
 */
export function compareSigns(here: SignCounts, usual: SignCounts, kind: SignClass): SignComparison | null {
  if (usual.minutes < LEAST_USUAL_MINUTES) return null;
  const own = signRate(here, kind);
  const before = signRate(usual, kind);
  if (own === null || before === null) return null;
  const rate = (one: SignRate): CountedRate => ({ count: one.count, minutes: one.minutes });
  const p = rateDifferenceP(rate(own), rate(before));
  const what = kind === "ease" ? "ease signs" : kind === "tension" ? "tension signs" : "danger signs";
  const numbers = `${own.perTenMinutes.toFixed(1)} ${what} in ten minutes, usually ${before.perTenMinutes.toFixed(1)}`;
  const words =
    p === null || p >= SAID_AT
      ? `${numbers}: no difference shown.`
      : `${numbers}: ${own.perTenMinutes > before.perTenMinutes ? "more" : "fewer"} than usual.`;
  return { kind, here: own, usual: before, p, words };
}

/** The names shown most, with their counts. */
export function commonestSigns({ byName }: SignCounts, kind: SignClass, most = 3): { readonly name: string; readonly n: number }[] {
  return Object.entries(byName)
    .filter(([name]) => SIGNS[kind].includes(name))
    .map(([name, n]) => ({ name, n }))
    .sort((a, b) => b.n - a.n || (a.name < b.name ? -1 : 1))
    .slice(0, most);
}
