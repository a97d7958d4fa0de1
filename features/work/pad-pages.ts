import type { LadderPlan } from "@/core/ladder";
import { methodOf } from "@/core/ladder";
import type { Way } from "./types";

/** The pads below the answers. What takes food's place goes by its own word. */
export const LOWER_PADS = ["mark", "not this one", "food", "ease", "tense", "side", "offer", "danger", "more"] as const;
export type LowerPad = (typeof LOWER_PADS)[number];

/** What of the plan chooses the pads: its method and what it gives, on any of its rungs, so that a pad keeps its place from rung to rung. */
export interface PadNeeds {
  readonly way: Way;
  /** Whether some rung is marked and paid. */
  readonly marks: boolean;
}

/** What a plan needs of the pads, whichever of its rungs is worked. */
export function padNeeds(plan: LadderPlan, way: Way): PadNeeds {
  return { way, marks: plan.rungs.some((_, i) => methodOf(plan, i + 1) !== "pressure-release") };
}

/** The pads below the answers by page, each page a list of rows. */
export interface PadPages {
  readonly first: readonly (readonly LowerPad[])[];
  /** Null where all stand on the first. */
  readonly second: readonly (readonly LowerPad[])[] | null;
}

/**
 * Which pads stand where. With room for five rows all are on the screen; on a
 * short screen the first page keeps the two this plan uses with every ask,
 * and danger, and the others lie on a second page.
 * @example padPages({ way: "timed", marks: true }, true).first // [["mark", "food", "danger"]]
 */
export function padPages({ way, marks }: PadNeeds, short: boolean): PadPages {
  const own: LowerPad = way === "timed" ? "mark" : "not this one";
  if (!short)
    return {
      first: [
        [own, "food", "ease", "tense"],
        ["side", "offer", "danger", "more"],
      ],
      second: null,
    };
  // What is tapped with every ask: in Timed the mark and the food of a rung that gives them, otherwise the horse's signs.
  if (way === "timed" && marks) return { first: [["mark", "food", "danger"]], second: [["ease", "tense"], ["side", "offer"], ["more"]] };
  return { first: [["ease", "tense", "danger"]], second: [["side", "offer"], [own, "food"], ["more"]] };
}
