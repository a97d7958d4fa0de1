export type { LadderPart, RecorderStart, Zone } from "@/core/pack";

import type { LadderPart } from "@/core/pack";
import type { BlockTries } from "@/core/record";

export type Side = "L" | "R";
export type Way = "tally" | "timed";

/** What a new block is to be. */
export interface BlockChoice {
  readonly rung: number;
  /** Null for an item without sides. */
  readonly side: Side | null;
  /** The ladder it is on, where that is not the one in work. */
  readonly part?: LadderPart;
  /** The experiment it is worked for, and the asks planned for it. */
  readonly tries?: BlockTries & { readonly asks: number };
  readonly kind: "warm-up" | "work" | "probe" | "sure";
}

/** Which sheet lies over the recorder. */
export type OpenSheet = "block" | "ladder" | "finish" | "keys" | "touch" | "more" | "between" | "run" | "rig" | null;
