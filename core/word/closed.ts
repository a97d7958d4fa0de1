import type { LadderPlan } from "../ladder";
import { type Allowance, allowedRung, barredBehaviour, barredLegs, barredMethod, barredRung } from "../welfare/restrictions";
import { sideLetter } from "../words";

/** Why nothing of a ladder may be worked under an allowance, or null. */
export function barredToday(involves: readonly string[], plan: LadderPlan, allowance: Allowance): string | null {
  return allowance.noWork?.why ?? barredBehaviour(involves, allowance) ?? barredMethod(plan.method, allowance);
}

/** Why the running block may be worked no further. */
export interface Closed {
  readonly why: string;
  /** Only this side is closed: the other one is open. */
  readonly side: boolean;
  /** The highest easier rung that is open; null where none is. */
  readonly rung: number | null;
}

/**
 * Whether what runs may go on under what is allowed now: a limit may come in
 * the middle of it. The word and the pads both ask this.
 * @param rung of the running block, or null where it is on none.
 * @returns null where it may.
 */
export function closedNow(
  plan: LadderPlan,
  involves: readonly string[],
  rung: number | null,
  side: "L" | "R" | null,
  allowance: Allowance,
): Closed | null {
  const why = barredToday(involves, plan, allowance);
  if (why !== null) return { why, side: false, rung: null };
  const only = allowance.side;
  if (only !== null && side !== null && side !== sideLetter(only.value)) return { why: only.why, side: true, rung: null };
  const leg = side !== null && involves.includes("legs") ? barredLegs(side, allowance) : null;
  if (leg !== null) return { why: leg, side: true, rung: null };
  const barred = rung === null ? undefined : barredRung(plan, rung, allowance)[0];
  if (rung === null || barred === undefined) return null;
  return { why: barred.why, side: false, rung: allowedRung(plan, rung, allowance)?.rung ?? null };
}
