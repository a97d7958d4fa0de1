import type { Outcome } from "@/core/evidence";
import { TOUCH_BEHAVIOUR, type TouchTool, type TouchZone } from "@/core/know";
import type { Fact } from "@/core/schemas";

/** What a block of touching is about. It belongs to no ladder: its trials are no evidence for any rung. */
export const TOUCH_BLOCK = { behaviour: TOUCH_BEHAVIOUR, rung: "body", sentence: "Stands soft while it is touched." } as const;

const OUTCOMES: readonly Outcome[] = ["refused", "miss", "try", "met", "met"];

/** Approach and retreat: how the zone was taken, and the trial it was. They share one press, so one undo takes both back. */
export function touchFacts(zone: TouchZone, side: "L" | "R", tool: TouchTool, grade: number): Fact[] {
  return [
    { type: "touch", payload: { zone, side, tool, grade } },
    {
      type: "trial",
      payload: {
        outcome: OUTCOMES[grade] ?? "refused",
        side,
        ease: grade,
        logged: "tally",
        released: grade >= 2 ? 1 : 0,
        note: `${zone}, ${tool}`,
      },
    },
  ];
}
