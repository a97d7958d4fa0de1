import { MOVEMENT_GRADES } from "../ladder/conversation";
import type { Criterion } from "../ladder/criterion";
import { shortNumber } from "../strands/phrase";
import { EASE_GRADES } from "../strands/strand";
import { SIDE_WORDS, sideLetter } from "../words";

/** What is known of an answer that was tapped as met. */
export interface TappedMet {
  readonly phase: number | null;
  readonly latencySeconds: number | null;
  readonly value: number | null;
  /** Time stayed, where the rung asks for a stay. */
  readonly stayedSeconds: number | null;
  readonly side: "L" | "R" | null;
  readonly ease: number | null;
  /** 0 stiff to 4 fluid. */
  readonly movement?: number | null;
  /** What the handler did, and how often. */
  readonly handlerActs?: Readonly<Record<string, number>>;
}

const phaseName = (criterion: Criterion, phase: number) => criterion.phases?.[phase - 1] ?? `phase ${phase}`;

/**
 * Checks a tap of met against its rung. What was not logged cannot fail.
 * @returns why it falls short, in words, or null where it stands.
 * @example shortfallOf({ sentence: "Trots.", min_movement: 3 }, met) // "It moved even; the rung asks for free."
 */
export function shortfallOf(criterion: Criterion, met: TappedMet): string | null {
  const { max_phase, max_latency_s, min_ease, side, stay_s, working } = criterion;
  if (max_phase !== undefined && met.phase !== null && met.phase > max_phase) {
    return `It took ${phaseName(criterion, met.phase)}; the rung asks for ${phaseName(criterion, max_phase)}${max_phase > 1 ? " or lighter" : ""}.`;
  }
  if (max_latency_s !== undefined && met.latencySeconds !== null && met.latencySeconds > max_latency_s) {
    return `It took ${shortNumber(met.latencySeconds)} s; the rung asks for ${shortNumber(max_latency_s)} s.`;
  }
  if (stay_s !== undefined && working?.percentile === undefined && met.stayedSeconds !== null && met.stayedSeconds < stay_s) {
    return `It stayed ${shortNumber(met.stayedSeconds)} s; the rung asks for ${shortNumber(stay_s)} s.`;
  }
  // A bar that follows the horse's own values judges the value; see follow-bar.
  if (working !== undefined && working.percentile === undefined && working.strand !== "stay" && met.value !== null) {
    const short = working.harder === "more" ? met.value < working.target : met.value > working.target;
    const unit = working.unit === "" ? "" : ` ${working.unit}`;
    if (short) return `It was ${shortNumber(met.value)}${unit}; the rung asks for ${shortNumber(working.target)}${unit}.`;
  }
  if (side !== undefined && side !== "both" && met.side !== null && met.side !== sideLetter(side)) {
    return `It was on the ${SIDE_WORDS[met.side]}; the rung asks for the ${side}.`;
  }
  if (min_ease !== undefined && met.ease !== null && met.ease < min_ease) {
    return `The horse was ${EASE_GRADES[met.ease] ?? "tense"}; the rung asks for ${EASE_GRADES[min_ease] ?? "soft"}.`;
  }
  const { min_movement, movement: words = MOVEMENT_GRADES } = criterion;
  if (min_movement !== undefined && met.movement != null && met.movement < min_movement) {
    return `It moved ${words[met.movement] ?? met.movement}; the rung asks for ${words[min_movement] ?? min_movement}.`;
  }
  for (const { act, most } of criterion.handler_most ?? []) {
    const done = met.handlerActs?.[act] ?? 0;
    if (done > most) return `You: ${act}, ${done} times; the rung allows ${most}.`;
  }
  return null;
}
