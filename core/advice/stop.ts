import { ABOVE_HEART_WORDS } from "../welfare/breath-down";
import { counted } from "../words";
import type { Advice } from "./advice";
import type { AdviceInput } from "./input";

/** In the heat, with a reason, so many minutes at walk are all. */
export const HEAT_MINUTES = 5;

const stop = (why: string, reason: string, numbers: Readonly<Record<string, number>> = {}): Advice => ({
  word: "Stop",
  why,
  reason,
  numbers,
});

/**
 * A limit that advice or age sets on the day is no matter of how the work goes: it stops.
 * @example limitReached({ … }) // { word: "Stop", why: "limit", … }
 */
export function limitReached({ limits, workMinutes }: Pick<AdviceInput, "limits" | "workMinutes">): Advice | null {
  if (limits === undefined) return null;
  const { minutes, trials, sessionTrials, circling = null } = limits;
  if (minutes !== null && workMinutes >= minutes.value)
    return stop("limit", `${counted(minutes.value, "minute")} of work, the most for today. ${minutes.why} End here.`, {
      minutes: minutes.value,
    });
  if (trials !== null && sessionTrials >= trials.value)
    return stop("limit", `${counted(sessionTrials, "repetition")}, the most for today. ${trials.why} End here.`, { trials: sessionTrials });
  if (circling !== null && circling.minutes >= circling.left.value)
    return stop(
      "limit",
      `${counted(Math.floor(circling.minutes), "minute")} of circling, the most for now. ${circling.left.why} End here.`,
      {
        minutes: circling.left.value,
      },
    );
  return null;
}

/** What a restriction or a cap that came in closes: the whole, one side of it, or this rung. */
function closedAdvice({ closed, running }: AdviceInput): Advice | null {
  if (closed == null) return null;
  if (closed.side)
    return { word: "Change side", why: "limit", reason: `Not the ${running === "L" ? "left" : "right"} today. ${closed.why}`, numbers: {} };
  if (closed.rung === null) return stop("limit", `Not today. ${closed.why} End here.`);
  return { ...stop("limit", `Not this rung today. ${closed.why} Rung ${closed.rung} is open.`), rung: closed.rung };
}

/** Breathing above the heart rate: it stops for today, whatever a later count says. */
function breathingAdvice({ breathing }: AdviceInput): Advice | null {
  if (breathing?.aboveHeart == null) return null;
  const { breaths, heart } = breathing.aboveHeart;
  const numbers = { breathing: Math.round(breaths), heart: Math.round(heart) };
  return stop(
    "breathing",
    breathing.notFallen
      ? "It hasn't clearly fallen in ten minutes. Call the vet now. Go on cooling."
      : `${numbers.breathing} breaths a minute, above the heart rate of ${numbers.heart}. Stop for today. ${ABOVE_HEART_WORDS}`,
    numbers,
  );
}

/** Too hot to work; with a reason from the list five minutes at walk, and then it stops too. */
function heatAdvice({ heat, heatReason = null, workMinutes }: AdviceInput): Advice | null {
  if (heat?.level !== "stop") return null;
  const degrees = Math.round(heat.wbgtCelsius);
  const where = heat.sky === "sun" ? "in the sun" : "in the shade";
  const numbers = { wbgtCelsius: heat.wbgtCelsius };
  const left = Math.ceil(HEAT_MINUTES - workMinutes);
  if (heatReason !== null && left > 0)
    return {
      word: "Repeat",
      why: "heat",
      reason: `Walk only, ${counted(left, "minute")} more at most: ${degrees} °C WBGT ${where} is too hot to work. Here because: ${heatReason}.`,
      numbers,
    };
  return stop("heat", `Too hot to work (${degrees} °C WBGT ${where}). Shade, water over the whole body, moving air. End here.`, numbers);
}

/**
 * Stop, of a kind: danger, pain, heat, breathing, or a limit of the day. Each
 * says what to do now. Danger comes first, since the stop card is for it.
 * @example stopAdvice(input) // { word: "Stop", why: "pain", … }
 */
export function stopAdvice(input: AdviceInput): Advice | null {
  const { danger, pain = false } = input;
  if (danger != null) {
    const what = danger === "danger" ? "A danger sign" : `The horse ${danger}`;
    return pain
      ? stop("pain", `The horse ${danger}. Stop for today, write it down, and have a vet look.`)
      : stop("danger", `${what}. Give line, make safe, breathe.`);
  }
  const [closed, heat] = [closedAdvice(input), heatAdvice(input)];
  // What closes the whole is said before what leaves a side, a rung or a few minutes open: nothing that is open beats an end.
  const wholly = closed !== null && closed.word === "Stop" && closed.rung === undefined ? closed : null;
  const tooHot = heat?.word === "Stop" ? heat : null;
  return breathingAdvice(input) ?? wholly ?? tooHot ?? limitReached(input) ?? closed ?? heat;
}
