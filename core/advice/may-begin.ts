import type { LadderPlan } from "../ladder";
import { type Allowance, barredRung } from "../welfare/restrictions";
import { barredToday } from "./closed";

/** A session about to begin, as far as it may be barred. */
export interface Beginning {
  /** Watching asks nothing of the horse. */
  readonly watching: boolean;
  readonly horse: { readonly name: string; readonly away: string | null };
  readonly allowance: Allowance;
  /** The ladder it begins on, its rung counted from 1; null for a free start and whatever is no work on a ladder. */
  readonly ladder: { readonly plan: LadderPlan; readonly involves: readonly string[]; readonly rung: number } | null;
}

/**
 * Why a session may not begin today, or null: the horse is put away, or a
 * restriction or its age bars the work, the behaviour, the method or the rung.
 * @example whyNotToBegin({ … }) // "No circling: lame behind. Advice of the veterinarian."
 */
export function whyNotToBegin({ watching, horse, allowance, ladder }: Beginning): string | null {
  if (watching) return null;
  if (horse.away !== null) return `${horse.name} is put away (${horse.away}). Bring the horse back first, under Know.`;
  if (allowance.noWork !== null) return allowance.noWork.why;
  if (ladder === null) return null;
  return barredToday(ladder.involves, ladder.plan, allowance) ?? barredRung(ladder.plan, ladder.rung, allowance)[0]?.why ?? null;
}
