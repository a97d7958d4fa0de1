import { WENT_ON } from "@/core/record";
import type { Fact } from "@/core/schemas";
import type { Sky } from "@/core/welfare";
import { adviceFacts } from "./begin-acts";
import { type Pen, press } from "./pen";

/** What the finish asks for, one line each. */
export interface FinishNotes {
  readonly better: string;
  readonly next: string;
  readonly handler: string;
}

/** What was looked at before work. */
export interface Preflight {
  readonly air_c?: number;
  readonly humidity?: number;
  readonly sky?: Sky;
  readonly wind?: string;
  readonly gear: { readonly helmet: boolean; readonly gloves: boolean; readonly boots: boolean };
  readonly checks: readonly string[];
  readonly open: readonly string[];
  readonly pouch?: number;
}

/** What was done after work. */
export interface Aftercare {
  readonly walked_off: boolean;
  readonly legs: string;
  readonly kit: string;
  readonly food_g: number | null;
  readonly breathing: readonly { readonly wall_ms: number; readonly per_min: number }[];
}

/** What is said before work, after it, and of a silence in it; and its end. */
export function sessionActs(pen: Pen) {
  const { now, log } = pen;
  const { beside } = adviceFacts(pen);
  return {
    preflight: (checked: Preflight) =>
      press(pen, { type: "preflight", payload: { ...checked, checks: [...checked.checks], open: [...checked.open], skipped: false } }),
    skipPreflight: () => press(pen, { type: "preflight", payload: { skipped: true } }),
    aftercare: (care: Aftercare) => press(pen, { type: "aftercare", payload: { ...care, breathing: [...care.breathing] } }),
    /** The silence since the last tap was work: a phone in a pocket, a horse that stood. */
    wentOn: () => {
      const { lastTapId } = now().record;
      if (lastTapId === null) return;
      // The end of no break is a tap of now: it holds up to here, and a silence after it is heard anew.
      press(
        pen,
        { type: "correct", payload: { event: lastTapId, payload: { [WENT_ON]: true }, reason: "we went on" } },
        { type: "break.end", payload: { reason: "we went on" } },
      );
    },
    finish: (notes: FinishNotes) => {
      const facts: Fact[] = ["Finish", "Stop"].includes(now().advice?.word ?? "") ? [] : beside("finish", false);
      if (now().onBreak) facts.push({ type: "break.end" });
      if (now().working) facts.push({ type: "block.end" });
      facts.push({ type: "session.end" });
      for (const about of ["better", "next", "handler"] as const)
        if (notes[about].trim() !== "") facts.push({ type: "note", payload: { text: notes[about].trim(), about } });
      log(...facts);
    },
  };
}
