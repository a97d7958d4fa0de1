/** A caution that follows from a horse's age. Common practice, no source; a veterinarian's advice goes before it. */
export interface AgeCaution {
  readonly underYears: number;
  readonly sentence: string;
}

const CAUTIONS: readonly AgeCaution[] = [
  { underYears: 1, sentence: "Under one year: minutes at a time, no tying, no circling." },
  { underYears: 2, sentence: "Under two years: short work, little circling, no hard tying, long rests between stages." },
  { underYears: 5, sentence: "Under five years: circling at most 20 minutes and once a week." },
];

/**
 * The caution for a horse born in a year, the strictest that applies; null
 * from five years on. Only the year is known, so the horse counts as young as it may be.
 */
export function ageCaution(birthYear: number, presentYear: number): AgeCaution | null {
  const years = presentYear - birthYear;
  return CAUTIONS.find((caution) => years < caution.underYears) ?? null;
}
