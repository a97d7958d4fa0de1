import type { Outcome } from "@/core/evidence";
import type { Fact, Payload } from "@/core/schemas";
import { tallyReinforcement } from "../block-facts";
import { canLog, type Pen, press, refuse } from "./pen";

/** What an offer is logged as, by what the rung says it earns. */
const EARNED = { reinforce: "reinforced", ignore: "ignored", settle: "settled" } as const;
const OFFER_WORDS = {
  reinforce: "Offer: reinforce it.",
  ignore: "Offer: let it pass, ask when you are ready.",
  settle: "Offer: keep still until the horse stands, then ask.",
} as const;

/** The pad of the ask: whether it is down. Its lift is a release, also where the ask ended before. */
export interface AskPad {
  holding: boolean;
}

/** Answers and offers, tallied or timed. */
export function answerActs(pen: Pen, ask: AskPad) {
  const { now, setPhase, setHint } = pen;

  const tally = (outcome: Outcome, more: Partial<Payload<"trial">> = {}) => {
    const { start, record, phase, phaseSaid, block } = now();
    const index = record.blocks.length - 1;
    const metBefore = record.trials.filter((trial) => trial.blockIndex === index && trial.outcome === "met").length;
    press(pen, {
      type: "trial",
      payload: {
        outcome,
        // The cue nobody pressed in this block is not said; it is not taken for the lightest.
        ...(phaseSaid ? { phase } : {}),
        ...(block?.side ? { side: block.side } : {}),
        logged: "tally",
        ...tallyReinforcement(start, block, metBefore, outcome),
        ...more,
      },
    });
    // Lightest first, every time.
    setPhase(1);
  };

  const offer = () => {
    const { start, record } = now();
    const waiting = record.timeLine.ownTimes.some(({ what, endMs }) => what === "settles" && endMs === null);
    // Settle first: from the offer on it is waited for.
    const settles: Fact[] = start.part.plan.offers === "settle" && !waiting ? [{ type: "own.start", payload: { what: "settles" } }] : [];
    press(pen, { type: "offer", payload: { earned: EARNED[start.part.plan.offers] } }, ...settles);
    setHint(OFFER_WORDS[start.part.plan.offers]);
  };

  const timed = (outcome: Outcome) => {
    const { start, open, block, record, presentMs } = now();
    const last = record.trials.at(-1);
    const staying = block?.criterion?.stay_s !== undefined && open?.answered === true;
    const late = open !== null && presentMs - open.askMs >= start.part.plan.maximumSeconds * 1000;
    const justRefused = open === null && last?.logged === "timed" && last.tapped === "refused";
    if (justRefused && (outcome === "met" || outcome === "try") && (ask.holding || last.faults.includes("release without a try"))) {
      // Held past the longest ask: what the horse was helped to. Or the finger left the hold a moment before it
      // reached this pad; the core decides whether it still belongs.
      press(pen, { type: "response", payload: { answer: outcome } });
      if (ask.holding) setHint("Helped to it. Let go; the next ask is on something easier.");
    } else if (open === null && (outcome === "met" || outcome === "try")) {
      offer();
      setHint(`Nothing was asked: counted as an offer. ${OFFER_WORDS[start.part.plan.offers]} Undo if it was an answer.`);
    } else if (open === null) refuse(pen, "Hold the ask first.");
    else if (staying && outcome === "met") press(pen, { type: "criterion" });
    else if (staying && outcome === "miss") press(pen, { type: "stay", payload: { ended_by: "left" } });
    else if (late && !open.answered && (outcome === "met" || outcome === "try")) {
      // Past the longest ask an answer is one the horse was helped to: refused, and no reinforcement of the rung.
      press(
        pen,
        { type: "response", payload: { answer: "refused", phase: open.phase ?? 1 } },
        { type: "response", payload: { answer: outcome } },
      );
      setHint("Past the longest ask: logged as refused, helped to it. Ask for something easier next.");
    } else press(pen, { type: "response", payload: { answer: outcome === "miss" ? "wrong" : outcome, phase: open.phase ?? 1 } });
  };

  return {
    tally,
    outcome: (outcome: Outcome) => {
      if (!canLog(pen)) return;
      if (now().way === "tally") tally(outcome);
      else timed(outcome);
    },
    /** A press that is the answer in every way of logging: where no ask is held it is a whole trial, never an offer. */
    answer: (outcome: Outcome) => {
      if (!canLog(pen)) return;
      const { way, open } = now();
      if (way === "tally" || open === null) tally(outcome);
      else timed(outcome);
    },
    offer: () => {
      if (canLog(pen)) offer();
    },
  };
}
