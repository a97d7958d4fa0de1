import { calmAsked, NOT_SOFT_GRADE } from "@/core/ladder";
import { SOFT_GRADE } from "@/core/record";
import { rungNumber } from "../block-facts";
import { type Pen, press } from "./pen";

/** So long after an answer the next press of the one button says how calm it was, in milliseconds. */
const CALM_BY_BUTTON_MS = 6000;

/** How calm the last answer was. */
export function calmActs(pen: Pen) {
  const { now } = pen;

  /** The last trial where the recorder asks how calm it was and nobody has said it yet. */
  const calmWanted = () => {
    const { start, record, block } = now();
    const last = record.trials.at(-1);
    if (block === null || last === undefined || last.blockIndex !== record.blocks.length - 1 || last.ease !== null) return null;
    const rung = Math.min(rungNumber(start, block), start.part.plan.rungs.length);
    return block.ladder !== null && calmAsked(start.part.plan, rung) !== null ? last : null;
  };
  const calm = (soft: boolean) => {
    if (calmWanted() !== null || now().record.trials.at(-1)?.ease != null)
      press(pen, { type: "measure", payload: { strand: "ease", value: soft ? SOFT_GRADE : NOT_SOFT_GRADE, unit: "grade" } });
  };

  return {
    calm,
    /** Takes a press of the one button for how calm the last answer was, where that is asked. @returns whether it was one. */
    calmByButton: (soft: boolean): boolean => {
      const last = calmWanted();
      if (last === null || last.tapped === "refused" || now().presentMs - last.endMs > CALM_BY_BUTTON_MS) return false;
      calm(soft);
      return true;
    },
    grade: (value: number) => press(pen, { type: "measure", payload: { strand: "ease", value, unit: "grade" } }),
  };
}
