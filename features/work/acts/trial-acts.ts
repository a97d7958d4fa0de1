import type { Outcome } from "@/core/evidence";
import { calmAsked, NOT_SOFT_GRADE } from "@/core/ladder";
import { SOFT_GRADE } from "@/core/record";
import type { Fact, Payload } from "@/core/schemas";
import { click } from "../../sound/feedback";
import { rungNumber, tallyReinforcement, usesFood } from "../block-facts";
import { canLog, type Pen, press, refuse } from "./pen";

const SHORTEST_STAY_SECONDS = 0.5;

/** So long after an answer the next press of the one button says how calm it was, in milliseconds. */
const CALM_BY_BUTTON_MS = 6000;

/** What an offer is logged as, by what the rung says it earns. */
const EARNED = { reinforce: "reinforced", ignore: "ignored", settle: "settled" } as const;
const OFFER_WORDS = {
  reinforce: "Offer: reinforce it.",
  ignore: "Offer: let it pass, ask when you are ready.",
  settle: "Offer: keep still until the horse stands, then ask.",
} as const;

/** The pads about asks and answers, marks and food. */
export function trialActs(pen: Pen) {
  const { now, setPhase, setHint } = pen;
  // Whether the pad of the ask is down: its lift is a release, also where the ask ended before.
  let holding = false;
  let stayingSinceMs: number | null = null;

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
    if (justRefused && (outcome === "met" || outcome === "try") && (holding || last.faults.includes("release without a try"))) {
      // Held past the longest ask: what the horse was helped to. Or the finger left the hold a moment before it
      // reached this pad; the core decides whether it still belongs.
      press(pen, { type: "response", payload: { answer: outcome } });
      if (holding) setHint("Helped to it. Let go; the next ask is on something easier.");
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

  const phase = (next: number) => {
    const { start, open, way } = now();
    if (next < 1 || next > start.part.plan.phases.length) return;
    if (way === "timed" && open !== null) {
      if (next !== open.phase) press(pen, { type: "phase", payload: { phase: next, by: "press" } });
    } else {
      click();
      setPhase(next, true);
    }
  };

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
      holding = true;
      press(pen, { type: "ask", payload: { phase: chosen } });
    } else if (holding || open !== null) {
      holding = false;
      press(pen, { type: "release" });
      setPhase(1);
    }
  };

  return {
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
    calm,
    /** Takes a press of the one button for how calm the last answer was, where that is asked. @returns whether it was one. */
    calmByButton: (soft: boolean): boolean => {
      const last = calmWanted();
      if (last === null || last.tapped === "refused" || now().presentMs - last.endMs > CALM_BY_BUTTON_MS) return false;
      calm(soft);
      return true;
    },
    hold,
    /** Whether there is something to hold: an ask in Timed, a stay in Tally. */
    canHold: () => now().working && (now().way === "timed" || now().block?.criterion?.stay_s !== undefined),
    /** One press on, the next off: for a button that does not tell when it comes up. */
    toggleHold: () => hold(!(holding || stayingSinceMs !== null || now().open !== null)),
    phase,
    /** Steps from the phase in force: a swipe, or a key for clearer and lighter. */
    phaseBy: (steps: number) => {
      const { open, way, phase: chosen, start } = now();
      const from = way === "timed" && open !== null ? (open.phase ?? 1) : chosen;
      phase(Math.min(start.part.plan.phases.length, Math.max(1, from + steps)));
    },
    /** A swipe up from an answer's pad: it took a clearer cue than the one chosen. */
    swipeLast: (steps: number) => {
      const { record, start } = now();
      const last = record.trials.at(-1);
      if (last === undefined || last.logged !== "tally") return;
      const to = Math.min(start.part.plan.phases.length, Math.max(1, (last.phase ?? 1) + steps));
      setPhase(1, true);
      if (to !== last.phase) press(pen, { type: "correct", payload: { event: last.eventId, payload: { phase: to }, reason: "swiped" } });
    },
    offer: () => {
      if (canLog(pen)) offer();
    },
    mark: () => {
      if (canLog(pen)) press(pen, { type: "mark" });
    },
    // The same pad and key: food where food is used, what takes its place where it is not.
    food: () => {
      const { start, block } = now();
      const rung = block === null ? start.part.next.rung : rungNumber(start, block);
      const { reinforcer, where } = start.part.plan.feeding;
      if (usesFood(start, rung)) {
        if (start.today.allowance.noFood !== null) refuse(pen, start.today.allowance.noFood.why);
        else press(pen, { type: "feed", payload: { pieces: 1, ...(where === "" ? {} : { where }) } });
      } else if (canLog(pen)) press(pen, { type: "reinforce", payload: { what: reinforcer === "food" ? "scratch" : reinforcer } });
    },
    grade: (value: number) => press(pen, { type: "measure", payload: { strand: "ease", value, unit: "grade" } }),
    value: (strand: string, value: number, unit: string) => press(pen, { type: "measure", payload: { strand, value, unit } }),
    notThisOne: () => {
      const last = now().record.trials.at(-1);
      if (last === undefined || last.logged !== "tally" || last.tapped !== "met") return refuse(pen, "No met answer to take it from.");
      press(pen, {
        type: "correct",
        payload: { event: last.eventId, payload: { reinforced: 0, marked: 0, reinforcers: 0 }, reason: "not reinforced" },
      });
    },
    countAsMet: () => {
      const last = now().record.trials.at(-1);
      if (last !== undefined && last.shortfall !== null)
        press(pen, { type: "override", payload: { of: last.eventId, from: last.outcome, to: "met", reason: "handler's judgement" } });
    },
    stay,
    /** Why a stay ended, with how far off the handler was. */
    stayEnded: (by: "criterion" | "left" | "handler", metres: number | null) => {
      const { open, record } = now();
      const stay = { type: "stay" as const, payload: { ended_by: by, ...(metres === null ? {} : { handler_distance_m: metres }) } };
      if (open !== null) return press(pen, ...(by === "criterion" ? [{ type: "criterion" as const }] : []), stay);
      const last = record.trials.at(-1);
      if (last === undefined) return;
      press(pen, { type: "correct", payload: { event: last.eventId, payload: { ended_by: by }, reason: "what ended the stay" } }, stay);
    },
  };
}
