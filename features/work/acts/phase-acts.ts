import { click } from "../../sound/feedback";
import { type Pen, press } from "./pen";

/** The cue: chosen, made clearer or lighter, and said of the last answer. */
export function phaseActs(pen: Pen) {
  const { now, setPhase } = pen;

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

  return {
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
  };
}
