import type { Day } from "../day";
import {
  type Age,
  type AgeCaution,
  type Allowance,
  ageCaution,
  ageOn,
  allowanceOn,
  holdsOn,
  type Restriction,
  restrictionSentence,
} from "../welfare";

/** What a horse's age and its restrictions say on a day. */
export interface CareOnDay {
  readonly age: Age | null;
  readonly caution: AgeCaution | null;
  readonly holding: readonly Restriction[];
  readonly allowance: Allowance;
  /** Every caution in words, the ones that hold on the day. */
  readonly sentences: readonly string[];
}

/**
 * What may be done with a horse on a day, on every screen and with or without the server.
 * @param restrictions those that were not ended.
 * @example careOn({ bornDay: null, birthYear: 2024 }, [], "2026-06-01").allowance.backing // barred by its age
 */
export function careOn(
  horse: { readonly bornDay: Day | null; readonly birthYear: number | null },
  restrictions: readonly Restriction[],
  day: Day,
): CareOnDay {
  const age = ageOn({ day: horse.bornDay, year: horse.birthYear }, day);
  const caution = age === null ? null : ageCaution(age);
  const holding = restrictions.filter((restriction) => holdsOn(restriction, day));
  return {
    age,
    caution,
    holding,
    allowance: allowanceOn(restrictions, day, caution),
    sentences: [...holding.map(restrictionSentence), ...(caution === null ? [] : [caution.sentence])],
  };
}
