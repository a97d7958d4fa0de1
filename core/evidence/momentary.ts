/** What looks at set moments come to, where looks close together resemble each other. */
export interface EffectiveLooks {
  /** Agreement of neighbouring looks beyond chance, from 0 to 1. */
  readonly agreement: number;
  /** How many independent looks they are worth. */
  readonly effective: number;
}

/**
 * How many independent looks a row of looks is worth: n(1 − ρ)/(1 + ρ), ρ the
 * agreement of neighbouring looks beyond what their shares alone would give
 * (the lag-one autocorrelation of a sequence of kinds), put right for the length
 * of the row (Marriott & Pope 1954, from memory). The effective number of a
 * first-order chain (Bartlett 1946, from memory).
 * @param looks answers in the order of the beeps.
 * @example effectiveLooks(["a", "a", "b", "b"]).agreement // 1/3
 */
export function effectiveLooks(looks: readonly string[]): EffectiveLooks {
  const n = looks.length;
  if (n < 2) return { agreement: 0, effective: n };
  const counts = new Map<string, number>();
  for (const look of looks) counts.set(look, (counts.get(look) ?? 0) + 1);
  const byChance = [...counts.values()].reduce((sum, count) => sum + (count / n) ** 2, 0);
  let same = 0;
  for (let i = 1; i < n; i++) if (looks[i] === looks[i - 1]) same++;
  if (byChance >= 1) return { agreement: 1, effective: 1 };
  const agreement = Math.min(1, Math.max(0, (same / (n - 1) - byChance) / (1 - byChance)));
  // A short row shows less agreement than there is, by about (1 + 3ρ)/n.
  const truer = Math.min(1, agreement === 0 ? 0 : agreement + (1 + 3 * agreement) / n);
  return { agreement, effective: Math.max(1, (n * (1 - truer)) / (1 + truer)) };
}

/** The two-sided point of the normal distribution at p = 0.01. */
const NORMAL_99 = 2.58;

/**
 * Whether the larger of two shares of one row of looks leads: their difference
 * over its standard error within one multinomial sample, √((p₁ + p₂ − (p₁ − p₂)²)/n),
 * above 2.58.
 * @example leads(0.7, 0.1, 40) // true
 */
export function leads(first: number, second: number, effective: number): boolean {
  const difference = first - second;
  if (!(difference > 0) || !(effective > 0)) return false;
  const variance = (first + second - difference * difference) / effective;
  return variance <= 0 ? false : difference / Math.sqrt(variance) > NORMAL_99;
}
