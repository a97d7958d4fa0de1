import type { Outcome } from "@/core/evidence";
import type { Payload } from "@/core/schemas";
import { click } from "../../sound/feedback";
import type { AskPad } from "./answer-acts";
import { canLog, type Pen, press } from "./pen";

const SHORTEST_STAY_SECONDS = 0.5;

/** Asks that are held, and stays that are timed by holding. */
export function holdActs(pen: Pen, ask: AskPad, tally: (outcome: Outcome, more?: Partial<Payload<"trial">>) => void) {
  const { now, setPhase } = pen;
  let stayingSinceMs: number | null = null;

  /** Tally of a stay: held while the horse stays. What ended it is asked for after; until then only what the time itself says stands. */
  const stay = (down: boolean) => {
    if (down) {
      if (canLog(pen)) {
        stayingSinceMs = performance.now();
        click();
      }
      return;
    }
    if (stayingSinceMs === null) return;
    const seconds = Math.round((performance.now() - stayingSinceMs) / 100) / 10;
    stayingSinceMs = null;
    const asked = now().block?.criterion?.stay_s ?? 0;
    // A tap is got it and no more: nobody stays for less than that.
    if (seconds < SHORTEST_STAY_SECONDS) return tally("met");
    tally("met", { value: seconds, unit: "s", ended_by: seconds >= asked ? "criterion" : "handler" });
  };

  const hold = (down: boolean) => {
    const { open, phase: chosen, way, block } = now();
    // In Tally there is no ask to hold; where the rung asks for a stay the same key times it.
    if (way === "tally") {
      if (block?.criterion?.stay_s !== undefined) stay(down);
      return;
    }
    if (down) {
      if (!canLog(pen) || open !== null) return;
      ask.holding = true;
      press(pen, { type: "ask", payload: { phase: chosen } });
    } else if (ask.holding || open !== null) {
      ask.holding = false;
      press(pen, { type: "release" });
      setPhase(1);
    }
  };

  return {
    stay,
    hold,
    /** Whether there is something to hold: an ask in Timed, a stay in Tally. */
    canHold: () => now().working && (now().way === "timed" || now().block?.criterion?.stay_s !== undefined),
    /** One press on, the next off: for a button that does not tell when it comes up. */
    toggleHold: () => hold(!(ask.holding || stayingSinceMs !== null || now().open !== null)),
  };
}
