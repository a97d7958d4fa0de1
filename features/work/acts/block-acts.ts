import { isAside, planBlock, rungNumber } from "../block-facts";
import { adviceActs } from "./advice-acts";
import { beginActs } from "./begin-acts";
import { ladderActs } from "./ladder-acts";
import { type Pen, press } from "./pen";
import { sessionActs } from "./session-acts";
import { tryActs } from "./try-acts";

/** Blocks, sides, breaks, the word and the end. */
export function blockActs(pen: Pen) {
  const { now, setSheet } = pen;
  const begins = beginActs(pen);
  const { putRungBetween, undo, nameNew } = ladderActs(pen, begins);
  return {
    ...begins,
    ...tryActs(pen, begins),
    ...adviceActs(pen, begins, putRungBetween),
    ...sessionActs(pen),
    /** @returns why the rung could not be put in, or null. */
    putRungBetween: (rung: number) => putRungBetween(rung),
    undo,
    nameNew,
    closeTouch: () => {
      setSheet(null);
      const { record, start } = now();
      const plan = planBlock(start, record);
      if (!isAside(start, record)) return;
      if (plan === null) press(pen, { type: "block.end" });
      else begins.begin({ rung: rungNumber(start, plan), side: plan.side, kind: plan.kind ?? "work" }, []);
    },
  };
}
