import type { CircleForm } from "../events/circle-plan";

/** Work on the circle by its form, as lists and logs call it. */
export const CIRCLE_BEHAVIOUR: Readonly<Record<CircleForm, string>> = {
  circle: "Circle work",
  pen: "Driven in a pen",
  lines: "Long lines",
};

/** The rung of a block that is worked by its plan and clock alone, on no ladder. */
export const PLAN_RUNG = "plan";

/**
 * What a session was about, as its line in a list and its own page say it:
 * behaviours, work on the circle first where its transitions were asks of one,
 * and rungs, without the block that is on none.
 * @param form of work on the circle; null for other sessions.
 * @example workedOn("circle", [{ behaviour: "Walk at the end", ladder: "l", rung: "3" }]) // about ["Circle work", "Walk at the end"], rungs ["3"]
 */
export function workedOn(
  form: CircleForm | null,
  blocks: readonly { readonly behaviour: string; readonly ladder: string | null; readonly rung: string }[],
): { readonly about: readonly string[]; readonly rungs: readonly string[] } {
  return {
    about: [...new Set([...(form === null ? [] : [CIRCLE_BEHAVIOUR[form]]), ...blocks.map(({ behaviour }) => behaviour)])],
    rungs: [...new Set(blocks.flatMap(({ ladder, rung }) => (ladder === null && rung === PLAN_RUNG ? [] : [rung])))],
  };
}
