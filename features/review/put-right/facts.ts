import type { Criterion } from "@/core/ladder";
import type { Correction, SessionRecord, SlimTrial, TimedFact, Trial } from "@/core/record";
import type { Fact } from "@/core/schemas";

export type Correcting = Extract<Fact, { type: "correct" }>;

/** What of a session can be put right: of its facts no more than what stands where, and those of trials only there. */
export interface PutRightRecord extends Pick<SessionRecord, "header" | "startWallMs" | "finishMs" | "lastMs" | "blocks"> {
  readonly trials: readonly SlimTrial[];
  readonly facts: readonly Pick<TimedFact, "id" | "type" | "ms">[];
}

/** What is needed to put a session right, beside its record. */
export interface PutRightFacts {
  readonly storeId: string;
  readonly horseId: string;
  readonly sessionId: string;
  readonly personId: string | null;
  readonly placeId: string | null;
  readonly people: readonly { readonly id: string; readonly name: string }[];
  readonly places: readonly { readonly id: string; readonly name: string }[];
  /** For each block the criteria of its ladder's rungs, as they were in its version; empty where there is no ladder. */
  readonly rungs: readonly (readonly Criterion[])[];
  readonly corrections: readonly Correction[];
}

/** The record with its trials whole again. */
export interface RightRecord extends Omit<PutRightRecord, "trials"> {
  readonly trials: readonly Trial[];
}

/** How corrections are kept. */
export interface Saving {
  readonly save: (corrections: readonly Correcting[]) => Promise<void>;
  readonly busy: boolean;
}

/** Events struck with a reason. */
export const strikes = (ids: readonly string[], reason: string): Correcting[] =>
  ids.map((event) => ({ type: "correct", payload: { event, strike: true, reason } }));
