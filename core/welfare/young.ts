import type { YardSettings } from "../settings";
import type { Age } from "./age";
import type { GoneAgainst, Restriction } from "./restrictions";

/**
 * What the yard's own settings close for a young horse, as restrictions: hard
 * tying and circling under an age of the yard's choice. Nothing where they are off.
 * @param goneAgainst days on which somebody worked all the same, with the reason.
 * @example yardRestrictions({ years: 1, months: 2, exact: true }, { youngTyingYears: 2, youngCirclingYears: 0 }) // no tying
 */
export function yardRestrictions(
  age: Age | null,
  { youngTyingYears, youngCirclingYears }: Pick<YardSettings, "youngTyingYears" | "youngCirclingYears">,
  goneAgainst: readonly GoneAgainst[] = [],
): Restriction[] {
  const wall = (kind: Restriction["kind"], years: number): Restriction[] =>
    age === null || age.years >= years
      ? []
      : [
          {
            kind,
            amount: null,
            detail: null,
            reason: `under ${years} ${years === 1 ? "year" : "years"}, a setting of this yard`,
            givenBy: "",
            from: null,
            until: null,
            goneAgainst,
          },
        ];
  return [...wall("no-tying", youngTyingYears), ...wall("no-circling", youngCirclingYears)];
}
