import { KICK_AT_ROPE, ON_A_TRY, ON_A_WRONG_ANSWER } from "./panic";

/** What the dwell coach looks at: the ask that is open now. Times in milliseconds from the start of work. */
export interface OpenAsk {
  readonly askMs: number;
  readonly phase: number;
  /** When the present phase began. */
  readonly phaseMs: number;
  /** The last answer inside the ask, or null where none came. */
  readonly answer: "met" | "try" | "wrong" | null;
  /** Where the rung asks for a stay: how long, since when the horse is in place, and whether it was said to be reached. */
  readonly stay?: { readonly askedSeconds: number; readonly sinceMs: number; readonly reached: boolean } | null;
}

export type DwellWord = "hold" | "step up" | "hold the try" | "hold: wrong answer" | "clearest" | "stays" | "release" | "maximum";

/** What to do with the pressure now, and how far the ring is round. */
export interface DwellAdvice {
  readonly word: DwellWord;
  readonly sentence: string;
  readonly plannedSeconds: number;
  readonly heldSeconds: number;
  /** From 0 to 1. */
  readonly ring: number;
  /** Seconds until the maximum of the ask. */
  readonly leftSeconds: number;
}

/** The part of a plan the coach needs. */
export interface DwellPlan {
  readonly phases: readonly {
    readonly label: string;
    readonly kind: string;
    readonly dwellSeconds: number;
    readonly profile: "steady" | "rising" | "pulse";
  }[];
  readonly maximumSeconds: number;
  readonly holdOnWrong: boolean;
  readonly transfer: { readonly gapSeconds: number } | null;
  /** How near the hand or tool comes before it touches, in centimetres; null where it is not said. */
  readonly firstTouchCentimetres: number | null;
  /** Whether a rope is on a leg: what a kick at it gets is then said; left out where none is. */
  readonly ropeOnLeg?: boolean;
}

/** Kinds of cue that touch the horse: they come near first. */
const TOUCHING: ReadonlySet<string> = new Set(["touch", "tap"]);

/**
 * The dwell of a phase, counted from 1: its own, or the gap to the old cue where the first one is a new cue.
 * @example plannedDwell(plan, 1) // 3
 */
export function plannedDwell(plan: Pick<DwellPlan, "phases" | "transfer">, phase: number): number {
  if (phase === 1 && plan.transfer !== null) return plan.transfer.gapSeconds;
  return plan.phases[phase - 1]?.dwellSeconds ?? 0;
}

/**
 * What to do with the pressure: hold for the dwell, then step up; hold on a
 * try; release on what was asked; hold the level on a wrong answer where the
 * plan says so; at the maximum help the horse to any smaller answer. It
 * advises: a phase changes by a press only.
 * @example dwellAdvice(plan, ask, 4000) // { plannedSeconds: 3, heldSeconds: 3, ring: 1, … }
 */
export function dwellAdvice(plan: DwellPlan, ask: OpenAsk, nowMs: number): DwellAdvice {
  const planned = plannedDwell(plan, ask.phase);
  const held = Math.max(0, (nowMs - ask.phaseMs) / 1000);
  const left = plan.maximumSeconds - (nowMs - ask.askMs) / 1000;
  const base = {
    plannedSeconds: planned,
    heldSeconds: held,
    ring: planned <= 0 ? 1 : Math.min(1, held / planned),
    leftSeconds: Math.max(0, left),
  };
  const next = plan.phases[ask.phase];
  const stay = ask.stay ?? null;
  if (ask.answer === "met" && stay !== null && !stay.reached) {
    const stayed = Math.max(0, (nowMs - stay.sinceMs) / 1000);
    const of = {
      plannedSeconds: stay.askedSeconds,
      heldSeconds: stayed,
      ring: Math.min(1, stayed / stay.askedSeconds),
      leftSeconds: base.leftSeconds,
    };
    if (stayed >= stay.askedSeconds) return { ...of, word: "release", sentence: `${stay.askedSeconds} s. That is it. Let go.` };
    return { ...of, word: "stays", sentence: `In place. Stays ${stay.askedSeconds} s.` };
  }
  if (ask.answer === "met") return { ...base, word: "release", sentence: "That is it. Let go." };
  if (left <= 0) return { ...base, word: "maximum", sentence: "Longest ask. Help to any smaller answer, let go on that." };
  if (ask.answer === "try") return { ...base, word: "hold the try", sentence: ON_A_TRY };
  if (ask.answer === "wrong" && plan.holdOnWrong)
    return { ...base, word: "hold: wrong answer", sentence: plan.ropeOnLeg === true ? KICK_AT_ROPE : ON_A_WRONG_ANSWER };
  if (next === undefined)
    return { ...base, word: "clearest", sentence: `The clearest ask. ${Math.ceil(base.leftSeconds)} s left of the longest.` };
  const to =
    TOUCHING.has(next.kind) && plan.firstTouchCentimetres !== null
      ? `${next.label}, starting ${plan.firstTouchCentimetres} cm away`
      : next.label;
  if (held >= planned && plan.phases[ask.phase - 1]?.profile !== "steady") return { ...base, word: "step up", sentence: `Go to ${to}.` };
  if (held >= planned) return { ...base, word: "step up", sentence: `Time at this level is up. Hold, or go to ${to}.` };
  return { ...base, word: "hold", sentence: `Hold ${planned} s.` };
}
