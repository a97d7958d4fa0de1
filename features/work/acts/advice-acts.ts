import { batteryPlace, FIRST_LOOK_STEPS } from "@/core/know";
import { adviceFacts, type BeginActs, stepChoice } from "./begin-acts";
import { type Pen, refuse } from "./pen";

/** The word taken in one press. */
export function adviceActs(
  pen: Pen,
  { begin, side, takeBreak }: BeginActs,
  putRungBetween: (rung: number, byWord: boolean) => Promise<string | null>,
) {
  const { now, log, setSheet } = pen;
  const { taken } = adviceFacts(pen);
  const toFinish = () => {
    log(...taken());
    setSheet("finish");
  };
  /** The next step of the battery, or its end. */
  const nextStep = () => {
    const { next } = batteryPlace(now().record);
    const step = next === null ? undefined : FIRST_LOOK_STEPS[next];
    if (step === undefined) setSheet("finish");
    else begin(stepChoice(step));
  };
  const takeAdvice = () => {
    const { advice, block, start, onBreak } = now();
    if (start.session.battery) return nextStep();
    if (advice === null || block === null) return;
    const { word, rung } = advice;
    const onSide = block.side ?? "L";
    switch (word) {
      case "Up":
      case "Go back":
        if (rung !== undefined) begin({ rung, side: onSide, kind: "work" }, taken());
        return;
      case "Add a step":
        void putRungBetween(Number(block.rung), true).then((problem) => {
          if (problem !== null) refuse(pen, problem);
        });
        return;
      case "Change side":
        return side();
      case "Break":
        if (!onBreak) takeBreak();
        return;
      case "Stop":
        // The stop card answers danger and pain itself.
        if (advice.why === "danger" || advice.why === "pain") return;
        return rung === undefined ? toFinish() : begin({ rung, side: onSide, kind: "work" }, taken());
      case "Finish":
        return rung !== undefined && block.kind !== "sure" ? begin({ rung, side: onSide, kind: "sure" }, taken()) : toFinish();
    }
  };
  return { takeAdvice };
}
