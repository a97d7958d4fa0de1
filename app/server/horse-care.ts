import { type Day, dayIn } from "@/core/day";
import type { YardSettings } from "@/core/settings";
import { type CareOnDay, careOn, heatLower } from "@/core/today";
import { asRestriction, getSettings, goneAgainst, type HorseRow, listRestrictions, type RestrictionRow, type Store } from "@/store";

/** The present day in the yard. */
export const today = (store: Pick<Store, "now" | "timeZone">): Day => dayIn(store.now(), store.timeZone);

/** By how much the bounds of heat lie lower for a horse, in °C. */
export const heatLowerOf = ({ born_day, birth_year, bears_heat_badly }: HorseRow, day: Day): number =>
  heatLower({ bornDay: born_day, birthYear: birth_year, bearsHeatBadly: Boolean(bears_heat_badly) }, day);

/** What a horse's age and its restrictions say today. */
export interface HorseCare extends CareOnDay {
  readonly day: Day;
  readonly rows: readonly RestrictionRow[];
}

export const horseCare = async (store: Store, horse: HorseRow): Promise<HorseCare> =>
  careOf(horse, await listRestrictions(store, horse.id), today(store), await getSettings(store));

/** The same of a horse whose restrictions are at hand. */
export function careOf(horse: HorseRow, rows: readonly RestrictionRow[], day: Day, settings: YardSettings): HorseCare {
  // One that was ended stays in the list with its reason, and holds nothing.
  const restrictions = rows.filter(({ ended_ms }) => ended_ms == null).map(asRestriction);
  return {
    day,
    rows,
    ...careOn({ bornDay: horse.born_day, birthYear: horse.birth_year, goneAgainst: goneAgainst(horse) }, restrictions, day, settings),
  };
}
