import type { LadderPlan } from "../ladder";
import { type Allowance, handlerPlaceMetres, type KitUse } from "../welfare";

/** How far a rung puts the handler from the horse, in metres, by its reach or its handler place; null where it does not say. */
function handlerMetres({ strands, rungs }: LadderPlan, rung: number): number | null {
  const value = (key: "reach" | "handler-place") => {
    const strand = strands.find((one) => one.key === key);
    return strand === undefined ? undefined : rungs[rung - 1]?.values[strand.id];
  };
  const reach = value("reach");
  if (typeof reach === "number") return reach;
  const place = value("handler-place");
  return typeof place === "string" ? handlerPlaceMetres(place) : null;
}

/**
 * What the kit of a session on a ladder is to be used for. @param leaves whether the horse has left in the last weeks.
 * @example kitUseOf(plan, 9, true, allowance) // { loading: false, leaves: true, handlerMetres: 8, … }
 */
export function kitUseOf(
  { plan, involves }: { readonly plan: LadderPlan; readonly involves: readonly string[] },
  rung: number,
  leaves: boolean,
  allowance: Allowance,
): KitUse {
  const cap = allowance.loadKg;
  return {
    loading: involves.includes("loading"),
    leaves,
    handlerMetres: handlerMetres(plan, rung),
    loadLimit: cap === null ? null : { kg: cap.value, why: cap.why },
  };
}
