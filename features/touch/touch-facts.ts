import type { Outcome } from "@/core/evidence";
import type { TouchTool, TouchZone } from "@/core/know";
import type { Fact } from "../work/use-session-log";

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
