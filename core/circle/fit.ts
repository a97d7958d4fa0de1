import type { Day } from "../day";
import { KIT_STAGES, type KitStage } from "../events/circle-plan";

/** How kit fits one horse. */
export interface KitFit {
  readonly holes_left: number | null;
  readonly holes_right: number | null;
  readonly strap_cm: number | null;
  /** Slack, as a hand's breadth: how many fit. */
  readonly slack_hands: number | null;
  readonly next_check: Day | null;
  readonly note: string;
}

export const NO_FIT: KitFit = { holes_left: null, holes_right: null, strap_cm: null, slack_hands: null, next_check: null, note: "" };

/** What is looked at before each use of kit with buckles. */
export const FIT_CHECKS = ["buckles equal both sides", "nothing rubs", "the line can be let go"] as const;

/** What a fit card has to say today; empty where nothing. */
export function fitSentences(fit: KitFit | null, today: Day): string[] {
  if (fit === null) return ["No fit card for this horse yet: note the holes once it sits."];
  const said: string[] = [];
  if (fit.holes_left !== null && fit.holes_right !== null && fit.holes_left !== fit.holes_right)
    said.push(`Holes ${fit.holes_left} left and ${fit.holes_right} right: even them before work.`);
  if (fit.next_check !== null && fit.next_check <= today) said.push("Its next check is due.");
  return said;
}

/** A session in kit, as the stages see it. */
export interface KitSession {
  readonly stage: KitStage | null;
  readonly poor: boolean;
}

/** Whether kit was worn at a stage before; no kit is nothing new. */
export const wornAt = (place: KitPlace | null | undefined, stage: KitStage | null): boolean =>
  place == null || (place.worn && place.stage === (stage ?? place.stage));

/** Where kit stands with a horse. */
export interface KitPlace {
  readonly stage: KitStage;
  /** Whether it was worn at this stage before. */
  readonly worn: boolean;
  readonly reason: string;
}

/**
 * The next stage of kit: one stage a session, repeated where the last was poor
 * (common practice, no source). Kit that has been through all stays on the circle.
 * @param done sessions in this kit, oldest first.
 */
export function kitPlace(done: readonly KitSession[]): KitPlace {
  let at = 0;
  let worn = false;
  let reason = "New to this horse: one part of it alone.";
  for (const { stage, poor } of done) {
    const index = stage === null ? KIT_STAGES.length - 1 : KIT_STAGES.indexOf(stage);
    if (poor) {
      at = index;
      worn = true;
      reason = "The last time was poor: the same stage again.";
      continue;
    }
    if (index === KIT_STAGES.length - 1) {
      at = index;
      worn = true;
      reason = "It has been through every stage.";
      continue;
    }
    at = Math.max(at, index + 1);
    worn = false;
    reason = `${KIT_STAGES[index]} went well: the next stage.`;
  }
  return { stage: KIT_STAGES[at] ?? "on the circle", worn, reason };
}
