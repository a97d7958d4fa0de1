import type { LadderPlan } from "../ladder";
import { type Allowance, allowedRung, barredBehaviour, barredLegs, barredMethod, barredRung } from "../welfare/restrictions";
import { sideLetter } from "../words";

/**
 * Why nothing of a ladder may be worked under an allowance, or null.
 * @example barredToday(["circling"], plan, allowance) // "No circling."
 */
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

/** Why one side may not be worked today, or null. */
function closedSide(involves: readonly string[], side: "L" | "R", allowance: Allowance): string | null {
  const only = allowance.side;
  if (only !== null && side !== sideLetter(only.value)) return only.why;
  return involves.includes("legs") ? barredLegs(side, allowance) : null;
}

/**
 * Whether what runs may go on under what is allowed now: a limit may come in
 * the middle of it. The word and the pads both ask this.
 * @param rung of the running block, or null where it is on none.
 * @returns null where it may.
 * @example closedNow(plan, [], 1, "L", allowance) // { side: true, rung: null, … }
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
  const here = side === null ? null : closedSide(involves, side, allowance);
  // Where the other side is closed too, changing sides is no way on.
  if (side !== null && here !== null)
    return { why: here, side: closedSide(involves, side === "L" ? "R" : "L", allowance) === null, rung: null };
  const barred = rung === null ? undefined : barredRung(plan, rung, allowance)[0];
  if (rung === null || barred === undefined) return null;
  return { why: barred.why, side: false, rung: allowedRung(plan, rung, allowance)?.rung ?? null };
}

/**
 * Why a chain may not be run today: every link is asked for, so one that is closed closes the whole. Each reason with its link.
 * @param partOf the ladder of a link; undefined where it is put away.
 * @example closedLinks(chain.links, partOf, allowance) // []
 */
export function closedLinks(
  links: readonly { readonly ladder: string; readonly rung: number; readonly name: string }[],
  partOf: (ladder: string) => { readonly plan: LadderPlan; readonly involves?: readonly string[] } | undefined,
  allowance: Allowance,
): string[] {
  const reasons = links.flatMap(({ ladder, rung, name }) => {
    const part = partOf(ladder);
    if (part === undefined) return [`${name} is put away.`];
    const closed = closedNow(part.plan, part.involves ?? [], rung, null, allowance);
    return closed === null ? [] : [`${name}: ${closed.why}`];
  });
  return [...new Set(allowance.noWork === null ? reasons : [allowance.noWork.why])];
}
