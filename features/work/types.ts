import type { Touch } from "@/core/know";
import type { LadderPlan } from "@/core/ladder";
import type { SessionEvent } from "@/core/schemas";
import type { EvidenceTrial, NextStart } from "@/core/session";
import type { Allowance } from "@/core/welfare";

/** Everything the recorder is given when its page loads. */
export interface RecorderStart {
  readonly storeId: string;
  readonly sessionId: string;
  readonly horse: { readonly id: string; readonly name: string };
  readonly handler: string;
  readonly place: string;
  /** Whether the plan is the first look's battery: items instead of rungs, and no word. */
  readonly battery: boolean;
  /** Null where the session is not work on a ladder. */
  readonly ladderId: string | null;
  readonly version: number | null;
  readonly behaviour: string;
  readonly plan: LadderPlan;
  readonly next: NextStart;
  /** Trials of other sessions on this ladder, oldest first. */
  readonly earlier: readonly EvidenceTrial[];
  /** What restrictions and age allow today. */
  readonly allowance: Allowance;
  /** Said before work begins: restrictions, age, kit. */
  readonly cautions: readonly string[];
  /** Zones of the place, each one tap away. */
  readonly zones: readonly string[];
  /** What the body map holds of earlier sessions. */
  readonly touches: readonly Touch[];
  readonly events: readonly SessionEvent[];
  readonly clocks: Readonly<Record<string, number>>;
  readonly position: number;
}

export type Side = "L" | "R";
export type Way = "tally" | "timed";

/** What a new block is to be. */
export interface BlockChoice {
  readonly rung: number;
  /** Null for an item without sides. */
  readonly side: Side | null;
  readonly kind: "warm-up" | "work" | "probe" | "sure";
}
