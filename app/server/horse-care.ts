import "server-only";
import { type Day, dayOf } from "@/core/day";
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

/** The present day where this machine stands. */
export const today = (nowMs: number): Day => dayOf(nowMs, -new Date(nowMs).getTimezoneOffset());

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

export async function horseCare(store: Store, horse: HorseRow): Promise<HorseCare> {
  const day = today(store.now());
  const rows = await listRestrictions(store, horse.id);
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
