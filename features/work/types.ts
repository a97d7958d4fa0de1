export type { Zone } from "@/core/pack";
export type { LadderPart, RecorderStart } from "@/core/start";

import type { BlockTries } from "@/core/record";
import type { LadderPart, RecorderStart } from "@/core/start";

export type Side = "L" | "R";
export type Way = "tally" | "timed";

/** What the recorder goes by at a moment: what it was given, what it was told since, and the ladder in work. */
export interface AtWork extends RecorderStart {
  readonly part: LadderPart;
}

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
