import type { NextStart } from "../advice";
import { circles, involvedIn, type LadderPlan } from "../ladder";
import type { EvidenceTrial } from "../record";
import type { BehaviourInput } from "../schemas";
import type { Cap } from "../welfare";

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
  /** The plan as it is worked. */
  readonly plan: LadderPlan;
  /** The plan as it is kept, where the block that runs is of an experiment and worked by its way; null elsewhere. */
  readonly ownPlan: LadderPlan | null;
  /** What the behaviour involves that a restriction may name. */
  readonly involves: readonly string[];
  readonly next: NextStart;
  /** Trials of other sessions on this ladder, oldest first. */
  readonly earlier: readonly EvidenceTrial[];
  /** Rungs of earlier versions that stand unchanged: version, then old and present number. */
  readonly carried: readonly (readonly [number, readonly (readonly [number, number])[]])[];
  /** Circling minutes that may still be worked today; null where it does not circle, or where a reason was given against the caps. */
  readonly circling: Cap<number> | null;
  /** Cautions of its method, its way of working and the kit in hand. */
  readonly planCautions: readonly string[];
}

/** What a part is made of: its plan, and what its plan does not say. */
export interface PartFacts extends Pick<LadderPart, "behaviourInput" | "next"> {
  readonly plan: LadderPlan;
  /** The ladder it is kept as; left out for work that has none. */
  readonly ladder?: { readonly id: string; readonly version: number; readonly revision: number };
  readonly earlier?: LadderPart["earlier"];
  readonly carried?: LadderPart["carried"];
  readonly planCautions?: readonly string[];
  /** Circling minutes left to the horse today, whatever it works on; null where nothing caps them. */
  readonly circlingLeft: Cap<number> | null;
}

/**
 * A ladder as the recorder works it. Every part is made here, so that what its
 * plan involves, and the cap that goes with it, cannot be another ladder's or
 * be left behind by a change of the plan.
 * @example ladderPart({ plan, behaviourInput, next, circlingLeft: null }).circling // null
 */
export function ladderPart({
  plan,
  behaviourInput,
  next,
  ladder,
  earlier = [],
  carried = [],
  planCautions = [],
  circlingLeft,
}: PartFacts): LadderPart {
  const involves = involvedIn(behaviourInput.involves, plan, behaviourInput.free);
  return {
    ladderId: ladder?.id ?? null,
    version: ladder?.version ?? null,
    revision: ladder?.revision ?? null,
    behaviour: behaviourInput.name,
    behaviourInput,
    plan,
    ownPlan: null,
    involves,
    next,
    earlier,
    carried,
    circling: circles(involves) ? circlingLeft : null,
    planCautions,
  };
}

/**
 * A behaviour of which only the name is known. Written out here, so that the recorder does not load the ladder's form.
 * @example onlyNamed("l") // { name: "l", finished: "", cue: "", … }
 */
export const onlyNamed = (name: string): BehaviourInput => ({
  name,
  finished: "",
  cue: "",
  why: "",
  involves: [],
  movement: "other",
  template: null,
  free: false,
  prerequisites: [],
});
