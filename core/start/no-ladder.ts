import { FIRST_LOOK_BEHAVIOUR, firstLookPlan } from "../know";
import { starterPlan } from "../ladder";
import { type LadderPart, ladderPart, onlyNamed } from "./part";

/** The first look's battery in place of a ladder. @example batteryPart() // { ladderId: null, version: null, revision: null, … } */
export const batteryPart = (): LadderPart =>
  ladderPart({
    behaviourInput: onlyNamed(FIRST_LOOK_BEHAVIOUR),
    plan: firstLookPlan(),
    next: {
      rung: 1,
      kind: "probe",
      headline: "First look",
      reason: "One to three asks an item, the lightest cue first. Nothing is taught yet.",
      barred: null,
    },
    circlingLeft: null,
  });

/**
 * A free start: nothing is planned; a ladder is chosen or named in the recorder.
 * @example freePart() // { ladderId: null, version: null, revision: null, … }
 */
export const freePart = (): LadderPart =>
  ladderPart({
    behaviourInput: onlyNamed("Free start"),
    plan: starterPlan(null),
    next: { rung: 1, kind: "work", headline: "Free start", reason: "Choose a ladder, or name something new.", barred: null },
    circlingLeft: null,
  });
