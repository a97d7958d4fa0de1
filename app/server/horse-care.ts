import "server-only";
import { type Day, dayIn } from "@/core/day";
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
} from "@/core/welfare";
import { asRestriction, type HorseRow, listRestrictions, type RestrictionRow, type Store } from "@/store";

/** The present day in the yard. */
export const today = (store: Pick<Store, "now" | "timeZone">): Day => dayIn(store.now(), store.timeZone);

/** What a horse's age and its restrictions say today. */
export interface HorseCare {
  readonly day: Day;
  readonly age: Age | null;
  readonly caution: AgeCaution | null;
  readonly rows: readonly RestrictionRow[];
  readonly holding: readonly Restriction[];
  readonly allowance: Allowance;
  /** Every caution in words, the ones that hold today. */
  readonly sentences: readonly string[];
}

export const horseCare = async (store: Store, horse: HorseRow): Promise<HorseCare> =>
  careOf(horse, await listRestrictions(store, horse.id), today(store));

/** The same of a horse whose restrictions are at hand. */
export function careOf(horse: HorseRow, rows: readonly RestrictionRow[], day: Day): HorseCare {
  const age = ageOn({ day: horse.born_day, year: horse.birth_year }, day);
  const caution = age === null ? null : ageCaution(age);
  // One that was ended stays in the list with its reason, and holds nothing.
  const all = rows.filter(({ ended_ms }) => ended_ms == null).map(asRestriction);
  const holding = all.filter((restriction) => holdsOn(restriction, day));
  return {
    day,
    age,
    caution,
    rows,
    holding,
    allowance: allowanceOn(all, day, caution),
    sentences: [...holding.map(restrictionSentence), ...(caution === null ? [] : [caution.sentence])],
  };
}
