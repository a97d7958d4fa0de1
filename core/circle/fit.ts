import type * as z from "zod";
import type { Day } from "../day";
import { KIT_STAGES, type KitStage } from "../events/circle-plan";
import type { kitFitDocument } from "./document";

/** How kit fits one horse. */
export type KitFit = z.infer<typeof kitFitDocument>;

export const NO_FIT: KitFit = { holesLeft: null, holesRight: null, strapCentimetres: null, slackHands: null, nextCheck: null, note: "" };

/** What is looked at before each use of kit with buckles. */
export const FIT_CHECKS = ["buckles equal both sides", "nothing rubs", "the line can be let go"] as const;

/** What a fit card has to say today; empty where nothing. @example fitSentences(fit, "2026-03-02") // ["Its next check is due."] */
export function fitSentences(fit: KitFit | null, today: Day): string[] {
  if (fit === null) return ["No fit card for this horse yet: note the holes once it sits."];
  const said: string[] = [];
  if (fit.holesLeft !== null && fit.holesRight !== null && fit.holesLeft !== fit.holesRight)
    said.push(`Holes ${fit.holesLeft} left and ${fit.holesRight} right: even them before work.`);
  if (fit.nextCheck !== null && fit.nextCheck <= today) said.push("Its next check is due.");
  return said;
}

/** A session in kit that was ended, as the stages see it. */
export interface KitSession {
  readonly stage: KitStage | null;
  readonly poor: boolean;
  /** Whether the walk at the end was easy; null where nobody said. */
  readonly easy: boolean | null;
  /** What was not ticked of what is looked at before use. Absent where nothing was looked at. */
  readonly fitOpen?: readonly string[];
  /** Seconds by gait and side: "walk L". */
  readonly seconds: Readonly<Record<string, number>>;
  readonly cool: { readonly ended: "cooled" | "left" | null } | null;
}

/** Whether kit went well at a stage before; no kit is nothing new. @example wornAt(null, null) // true */
export const wornAt = (place: KitPlace | null | undefined, stage: KitStage | null): boolean =>
  place == null || (place.worn && place.stage === (stage ?? place.stage));

/** Where kit stands with a horse. */
export interface KitPlace {
  readonly stage: KitStage;
  /** Whether it went well at this stage before. */
  readonly worn: boolean;
  readonly reason: string;
}

const wentIn = ({ seconds }: KitSession, ...gaits: readonly string[]) =>
  Object.entries(seconds).some(([key, value]) => value > 0 && gaits.some((gait) => key.startsWith(`${gait} `)));

/**
 * Why a session does not let the kit go on, or null where it went well: what was not said is not taken for well.
 * @param first whether the kit has not gone well at this stage before: then it is walk alone.
 */
function kitHeldBack(session: KitSession, first: boolean): string | null {
  const { poor, easy, fitOpen, cool } = session;
  if (poor) return "The last time was poor";
  if (fitOpen === undefined) return "Nobody looked over the fit";
  if (fitOpen.length > 0) return `Not looked at before: ${fitOpen.join(", ")}`;
  if (first && wentIn(session, "trot", "canter")) return "The last time was not at walk alone";
  if (first && !wentIn(session, "walk")) return "It has not walked in it yet";
  if (cool?.ended === "left") return "The cool-down was closed before breath was down";
  if (cool?.ended !== "cooled") return "The cool-down was not closed";
  if (easy === null) return "Nobody said whether the walk at the end was easy";
  return null;
}

/**
 * The next stage of kit: one stage a session, repeated where the last did not go
 * well (common practice, no source). Kit that has been through all stays on the circle.
 * @param done sessions in this kit, oldest first.
 * @example kitPlace([]) // { stage: "one part", worn: false, … }
 */
export function kitPlace(done: readonly KitSession[]): KitPlace {
  let at = 0;
  let reason = "New to this horse: one part of it alone.";
  const well = new Set<number>();
  for (const session of done) {
    const index = session.stage === null ? KIT_STAGES.length - 1 : KIT_STAGES.indexOf(session.stage);
    const heldBack = kitHeldBack(session, !well.has(index));
    if (heldBack !== null) {
      at = index;
      reason = `${heldBack}: the same stage again.`;
      continue;
    }
    well.add(index);
    if (index === KIT_STAGES.length - 1) {
      at = index;
      reason = "It has been through every stage.";
      continue;
    }
    at = Math.max(at, index + 1);
    reason = `${KIT_STAGES[index]} went well: the next stage.`;
  }
  return { stage: KIT_STAGES[at] ?? "on the circle", worn: well.has(at), reason };
}
