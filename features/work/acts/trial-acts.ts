import { rungNumber, usesFood } from "../block-facts";
import { type AskPad, answerActs } from "./answer-acts";
import { calmActs } from "./calm-acts";
import { holdActs } from "./hold-acts";
import { canLog, type Pen, press, refuse } from "./pen";
import { phaseActs } from "./phase-acts";

/** What the last answer earned or was, said after it. */
function afterActs(pen: Pen) {
  const { now } = pen;
  return {
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

/** The pads about asks and answers, marks and food. */
export function trialActs(pen: Pen) {
  const ask: AskPad = { holding: false };
  const { tally, ...answers } = answerActs(pen, ask);
  return { ...answers, ...calmActs(pen), ...holdActs(pen, ask, tally), ...phaseActs(pen), ...afterActs(pen) };
}
