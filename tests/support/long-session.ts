import type { LadderPlan } from "@/core/ladder";
import type { SessionEvent } from "@/core/schemas";
import { emptyDraft } from "./plan";
import { SessionWriter } from "./session-writer";

export const LADDER_ID = "ladder-1";

/** A ladder of two sides, so that every rule of the word is asked. */
export function longSessionPlan(): LadderPlan {
  const { plan } = emptyDraft();
  const side = {
    id: "side",
    key: "side",
    name: "side",
    kind: "levels",
    unit: "",
    levels: ["left", "right", "both"],
    harder: "more",
  } as const;
  const rungs = [1, 2, 3, 4].map(() => ({ values: { ...plan.rungs[0]?.values, side: "both" } }));
  return { ...plan, strands: [...plan.strands, side], rungs };
}

/** A session of so many events: timed trials of six events, some of them missed, in one long block after some short ones. */
export function longSessionEvents(count: number): SessionEvent[] {
  const w = new SessionWriter();
  let at = 0;
  let block = 0;
  for (let n = 0; w.events.length < count; n++) {
    if (n % 30 === 0 && block < 4) {
      block++;
      w.block(at, { block, rung: 2, side: block % 2 === 0 ? "R" : "L", ladder: LADDER_ID });
    }
    at += 6;
    w.add(at, "ask", { phase: 1 });
    w.add(at + 2, "phase", { phase: 2, by: "press" });
    w.add(at + 3, "response", { answer: n % 4 === 3 ? "wrong" : "met", phase: 2 });
    w.add(at + 3.4, "release");
    w.add(at + 3.6, "mark");
    w.add(at + 5, "feed", { pieces: 1 });
  }
  return w.events;
}
