import type { Day } from "../day";
import type { YardSettings } from "../settings";
import {
  type Age,
  type AgeCaution,
  type Allowance,
  ageCaution,
  ageOn,
  allowanceOn,
  BEARS_BADLY_CELSIUS,
  type GoneAgainst,
  goneAgainstOn,
  holdsOn,
  type Restriction,
  restrictionSentence,
  yardRestrictions,
} from "../welfare";

/** From this age on a horse is taken to bear heat badly, in years, and a foal under one (common practice, no source). */
const OLD_YEARS = 20;

/**
 * By how much the bounds of heat lie lower for a horse, in °C: where somebody
 * said that it bears heat badly, for a foal and for an old horse.
 * @example heatLower({ bornDay: null, birthYear: 2001 }, "2026-06-01") // 3
 */
export function heatLower(
  horse: { readonly bornDay: Day | null; readonly birthYear: number | null; readonly bearsHeatBadly?: boolean },
  day: Day,
): number {
  const age = ageOn({ day: horse.bornDay, year: horse.birthYear }, day);
  const byAge = age !== null && (age.years < 1 || age.years >= OLD_YEARS);
  return horse.bearsHeatBadly === true || byAge ? BEARS_BADLY_CELSIUS : 0;
}

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
 * @example careOn({ bornDay: null, birthYear: 2024 }, [], "2026-06-01", settings).sentences // what its age cautions
 */
export function careOn(
  horse: { readonly bornDay: Day | null; readonly birthYear: number | null; readonly goneAgainst?: readonly GoneAgainst[] },
  restrictions: readonly Restriction[],
  day: Day,
  settings: Pick<YardSettings, "youngTyingYears" | "youngCirclingYears" | "circleYoungYears" | "circleYoungMinutes" | "circleYoungVisits">,
): CareOnDay {
  const age = ageOn({ day: horse.bornDay, year: horse.birthYear }, day);
  const caution =
    age === null
      ? null
      : ageCaution(age, { years: settings.circleYoungYears, minutes: settings.circleYoungMinutes, visits: settings.circleYoungVisits });
  const all = [...restrictions, ...yardRestrictions(age, settings, horse.goneAgainst)];
  const holding = all.filter((restriction) => holdsOn(restriction, day));
  const said = (restriction: Restriction) => {
    const against = goneAgainstOn(restriction, day);
    const sentence = restrictionSentence(restriction);
    return against === null ? sentence : `${sentence} Gone against today: ${against.reason.replace(/\.$/, "")}.`;
  };
  return {
    age,
    caution,
    holding,
    allowance: allowanceOn(all, day, caution),
    sentences: [...holding.map(said), ...(caution === null ? [] : [caution.sentence])],
  };
}
