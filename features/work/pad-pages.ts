import type { LadderPlan } from "@/core/ladder";
import { methodOf } from "@/core/ladder";
import type { Way } from "./types";

/** The pads below the answers. What takes food's place goes by its own word. */
export const LOWER_PADS = ["mark", "not this one", "food", "ease", "tense", "side", "offer", "danger", "more"] as const;
/** Pads between the asks: only those a ladder has asked for stand there. */
export const BETWEEN_PADS = ["wrong", "looks", "settles", "retreat"] as const;
export type BetweenPadName = (typeof BETWEEN_PADS)[number];
export type LowerPad = (typeof LOWER_PADS)[number] | BetweenPadName;

/** What of the plan chooses the pads: its method and what it gives, on any of its rungs, so that a pad keeps its place from rung to rung. */
export interface PadNeeds {
  readonly way: Way;
  /** Whether some rung is marked and paid. */
  readonly marks: boolean;
  /** Pads between the asks that the ladder has asked for. */
  readonly between?: readonly BetweenPadName[];
}

/** The pads between the asks of a plan, in order; none for a ladder that asks for none. */
export function betweenPads({ conversation = {}, offers }: Pick<LadderPlan, "conversation" | "offers">): BetweenPadName[] {
  const { whenWrong, ownTimes = [], retreats } = conversation;
  // Where an offer has to settle first, how long that takes is what is waited for.
  const times = offers === "settle" && !ownTimes.includes("settles") ? [...ownTimes, "settles" as const] : ownTimes;
  return [...(whenWrong === undefined ? [] : (["wrong"] as const)), ...times, ...(retreats === true ? (["retreat"] as const) : [])];
}

/** What a plan needs of the pads, whichever of its rungs is worked. */
export function padNeeds(plan: LadderPlan, way: Way): PadNeeds {
  const marks = plan.rungs.some((_, i) => methodOf(plan, i + 1) !== "pressure-release");
  return { way, marks, between: betweenPads(plan) };
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
 * and danger, and the others lie on a second page. What a ladder asks for
 * between the asks stands in those rows, narrower; no row is added.
 * @example padPages({ way: "timed", marks: true }, true).first // [["mark", "food", "danger"]]
 */
export function padPages({ way, marks, between = [] }: PadNeeds, short: boolean): PadPages {
  const own: LowerPad = way === "timed" ? "mark" : "not this one";
  // At most two in a row of six; the first of them stands nearest to the thumb.
  const [one, two, three, four] = between;
  const there = (...pads: (LowerPad | undefined)[]) => pads.filter((pad) => pad !== undefined);
  if (!short)
    return {
      first: [there(own, "food", "ease", "tense", two, four), there("side", "offer", one, three, "danger", "more")],
      second: null,
    };
  // What is tapped with every ask: in Timed the mark and the food of a rung that gives them, otherwise the horse's signs.
  const rest = there(two, three, four);
  const more = rest.length === 0 ? [["more"] as const] : [there(...rest, "more")];
  if (way === "timed" && marks)
    return { first: [there("mark", "food", one, "danger")], second: [["ease", "tense"], ["side", "offer"], ...more] };
  return { first: [there("ease", "tense", one, "danger")], second: [["side", "offer"], [own, "food"], ...more] };
}
