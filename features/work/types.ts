import type { Touch } from "@/core/know";
import type { LadderPlan } from "@/core/ladder";
import type { EvidenceTrial } from "@/core/record";
import type { BehaviourInput, SessionEvent } from "@/core/schemas";
import type { YardSettings } from "@/core/settings";
import type { Allowance } from "@/core/welfare";
import type { NextStart } from "@/core/word";

/** One ladder of the horse as the recorder needs it, so that the trainer can go over to it in the pen. */
export interface LadderPart {
  /** Null for work on something that has no ladder. */
  readonly ladderId: string | null;
  readonly version: number | null;
  /** Which edit of the ladder this is, so that a change made here cannot overwrite one made elsewhere. */
  readonly revision: number | null;
  readonly behaviour: string;
  /** As the ladder's form sends it, for a change made in the pen. */
  readonly behaviourInput: BehaviourInput;
  readonly plan: LadderPlan;
  readonly next: NextStart;
  /** Trials of other sessions on this ladder, oldest first. */
  readonly earlier: readonly EvidenceTrial[];
  /** Rungs of earlier versions that stand unchanged: version, then old and present number. */
  readonly carried: readonly (readonly [number, readonly (readonly [number, number])[]])[];
  /** Cautions of its method, its way of working and the kit in hand. */
  readonly planCautions: readonly string[];
}

/** A zone of the place. */
export interface Zone {
  readonly name: string;
  readonly kind: string;
}

/** Everything the recorder is given when its page loads. The ladder in work is spread into it. */
export interface RecorderStart extends LadderPart {
  readonly storeId: string;
  readonly sessionId: string;
  readonly horse: { readonly id: string; readonly name: string };
  readonly handler: string;
  readonly place: string;
  /** Whether the plan is the first look's battery: items instead of rungs, and no word. */
  readonly battery: boolean;
  /** Every ladder of the horse; the first is the one the session begins on. */
  readonly ladders: readonly LadderPart[];
  /** What restrictions and age allow today. */
  readonly allowance: Allowance;
  /** Said before work begins: restrictions, age, kit. */
  readonly cautions: readonly string[];
  /** Zones of the place, each one tap away. */
  readonly zones: readonly Zone[];
  /** What the last session said to do next, or null. */
  readonly doNext: { readonly text: string; readonly dayMs: number } | null;
  /** What is used up of the week and the day. */
  readonly used: readonly string[];
  /** The horse's own rates at rest, a minute; null where they are not known. */
  readonly restingBreaths: number | null;
  /** The side known to be behind over the last weeks, or null. */
  readonly weakerSide: "L" | "R" | null;
  readonly wordSettings: YardSettings;
  /** What the body map holds of earlier sessions. */
  readonly touches: readonly Touch[];
  readonly events: readonly SessionEvent[];
  readonly clocks: Readonly<Record<string, number>>;
  readonly position: number;
  /** Minutes without a tap after which it is a pause. */
  readonly silenceMinutes: number;
}

export type Side = "L" | "R";
export type Way = "tally" | "timed";

/** What a new block is to be. */
export interface BlockChoice {
  readonly rung: number;
  /** Null for an item without sides. */
  readonly side: Side | null;
  /** The ladder it is on, where that is not the one in work. */
  readonly part?: LadderPart;
  readonly kind: "warm-up" | "work" | "probe" | "sure";
}

/** Which sheet lies over the recorder. */
export type OpenSheet = "block" | "ladder" | "finish" | "keys" | "touch" | "more" | null;
