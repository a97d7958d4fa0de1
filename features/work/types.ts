import type { LadderPlan } from "@/core/ladder";
import type { SessionEvent } from "@/core/schemas";
import type { EvidenceTrial, NextStart } from "@/core/session";

/** Everything the recorder is given when its page loads. */
export interface RecorderStart {
  readonly storeId: string;
  readonly sessionId: string;
  readonly horse: { readonly id: string; readonly name: string; readonly restrictions: string };
  readonly handler: string;
  readonly place: string;
  readonly ladderId: string;
  readonly version: number;
  readonly behaviour: string;
  readonly plan: LadderPlan;
  readonly next: NextStart;
  /** Trials of other sessions on this ladder, oldest first. */
  readonly earlier: readonly EvidenceTrial[];
  readonly events: readonly SessionEvent[];
  readonly clocks: Readonly<Record<string, number>>;
  readonly position: number;
}

export type Side = "L" | "R";
export type Way = "tally" | "timed";

/** What a new block is to be. */
export interface BlockChoice {
  readonly rung: number;
  readonly side: Side;
  readonly kind: "warm-up" | "work" | "probe" | "sure";
}
