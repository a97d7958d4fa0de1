import "server-only";
import { type Allowance, handlerPlaceMetres, type KitUse } from "@/core/welfare";
import { involvesOf, type StoredLadder } from "@/store";

/** How far a rung puts the handler from the horse, in metres, by its reach or its handler place; null where it does not say. */
function handlerMetres(ladder: StoredLadder, rung: number): number | null {
  const { strands, rungs } = ladder.plan;
  const value = (key: "reach" | "handler-place") => {
    const strand = strands.find((one) => one.key === key);
    return strand === undefined ? undefined : rungs[rung - 1]?.values[strand.id];
  };
  const reach = value("reach");
  if (typeof reach === "number") return reach;
  const place = value("handler-place");
  return typeof place === "string" ? handlerPlaceMetres(place) : null;
}

/** What the kit of a session on a ladder is to be used for. */
export function kitUse(ladder: StoredLadder, rung: number, leaves: boolean, allowance: Allowance): KitUse {
  const cap = allowance.loadKg;
  return {
    loading: involvesOf(ladder).includes("loading"),
    leaves,
    handlerMetres: handlerMetres(ladder, rung),
    loadLimit: cap === null ? null : { kg: cap.value, why: cap.why },
  };
}
