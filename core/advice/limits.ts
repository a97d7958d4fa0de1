import type { YardSettings } from "../settings";
import { heatNumber } from "../welfare/heat";
import { counted } from "../words";
import type { Advice } from "./advice";
import { window } from "./go-back";
import type { AdviceInput } from "./input";

/** Whether a rest for the time without one may be said: once declined, after half as much time or asks again, twice declined after as much again. */
function restIsDue({ declined, workMinutes }: AdviceInput, settings: YardSettings, share: number): boolean {
  const before = declined?.filter(({ why }) => why === "minutes" || why === "asks") ?? [];
  const last = before.at(-1);
  if (last === undefined) return true;
  const more = (share * before.length) / 2;
  return workMinutes - last.minutes >= settings.restAfterMinutes * more || last.trialsSince >= settings.restAfterTrials * more;
}

/**
 * Rest: heat, breathing, tension with nothing easier to go to, minutes and asks without a break.
 * @example breakAdvice(input, settings) // { word: "Break", why: "asks", … }
 */
export function breakAdvice(input: AdviceInput, settings: YardSettings): Advice | null {
  const { heat, breathing } = input;
  const degrees = heat?.wbgtCelsius ?? 0;
  if (breathing != null) {
    const rate = Math.round(breathing.perMinute);
    const resting = breathing.restingPerMinute;
    if (resting !== null && breathing.settled && breathing.perMinute >= resting * settings.restBreathingTimes) {
      const hot = heat != null && heat.level !== "usual";
      return {
        word: "Break",
        why: "breathing",
        reason: `${rate} breaths a minute, ${Math.round(resting)} at rest. ${hot ? "Shade, water over the whole body, moving air." : "Walk on a loose line."} Count again in three minutes.`,
        numbers: { breathing: rate, resting: Math.round(resting) },
      };
    }
  }
  const signs = input.tensionSigns ?? 0;
  if (input.rung <= 1 && signs >= settings.tensionSigns)
    return {
      word: "Break",
      why: "tension",
      reason: `${signs} tension signs in ${window(settings)} on the first rung. Let it come down.`,
      numbers: { signs },
    };
  const share = heat?.level === "cut" ? settings.heatCutShare : heat?.level === "watch" ? settings.heatWatchShare : 1;
  const because = share < 1 ? ` ${heatNumber(degrees)}: shorter than usual.` : "";
  const numbers: Record<string, number> = share < 1 ? { wbgtCelsius: degrees } : {};
  if (!restIsDue(input, settings, share)) return null;
  if (input.minutesSinceRest >= settings.restAfterMinutes * share) {
    const minutes = Math.floor(input.minutesSinceRest);
    return {
      word: "Break",
      why: "minutes",
      reason: `${counted(minutes, "minute")} of work without a break.${because}`,
      numbers: { minutes, ...numbers },
    };
  }
  if (input.trialsSinceRest >= settings.restAfterTrials * share) {
    const trials = input.trialsSinceRest;
    return { word: "Break", why: "asks", reason: `${counted(trials, "ask")} without a break.${because}`, numbers: { trials, ...numbers } };
  }
  return null;
}

/** Where to end: on the sure rung, or on what runs where that is sure or nothing easier is known. */
function ending(input: AdviceInput): { words: string; rung?: number } {
  const sure = input.sureRung ?? null;
  if (input.blockKind === "sure" || sure === null || sure >= input.rung) return { words: "End on an easy one." };
  return { words: `End on rung ${sure}: it is mostly met.`, rung: sure };
}

/** Finish for the clock and the plan. @example finishByPlan(input, settings) // { word: "Finish", why: "plan", … } */
export function finishByPlan(input: AdviceInput, settings: YardSettings): Advice | null {
  const { words, rung } = ending(input);
  const to = rung === undefined ? {} : { rung };
  const minutes = Math.floor(input.workMinutes);
  const cap = input.limits?.minutes ?? null;
  if (cap !== null && input.workMinutes >= cap.value - settings.finishLeadMinutes && cap.value > settings.finishLeadMinutes)
    return {
      word: "Finish",
      why: "session minutes",
      reason: `${minutes} of ${counted(cap.value, "minute")} allowed today. ${words}`,
      numbers: { minutes, of: cap.value },
      ...to,
    };
  if (input.workMinutes >= settings.finishAfterMinutes - settings.finishLeadMinutes)
    return {
      word: "Finish",
      why: "session minutes",
      reason: `${counted(minutes, "minute")} of work, ${settings.finishAfterMinutes} is usual. ${words}`,
      numbers: { minutes, of: settings.finishAfterMinutes },
      ...to,
    };
  const planned = input.session?.planned ?? null;
  const done = input.session?.trials ?? 0;
  if (planned !== null && done >= planned)
    return {
      word: "Finish",
      why: "plan",
      reason: `The plan is done: ${done} of ${planned} repetitions. ${words}`,
      numbers: { trials: done, of: planned },
      ...to,
    };
  return null;
}
