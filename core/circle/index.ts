export {
  CIRCLE_FORMS,
  CIRCLE_GAITS,
  type CircleForm,
  type CircleGait,
  type CircleOverride,
  type CirclePlan,
  type CircleSegment,
  KIT_STAGES,
  type KitStage,
  type LinesSetup,
  MOST_SEGMENTS,
  RADIUS_BY,
  TRANSITIONS_BY,
  WAYS,
  type Ways,
} from "../events/circle-plan";
export { aidPhases } from "./aid-phases";
export {
  type CircleCaps,
  type CircleCaution,
  type CirclePlace,
  type CircleSettings,
  type CircleUse,
  type CirclingLeft,
  circleCaps,
  circlingLeft,
  circlingSentence,
  NO_OWN_CAPS,
  type OwnCircleCaps,
  planCautions,
  standingCautions,
  usedUpCircling,
} from "./caps";
export { type CircleDigest, circleDigestOf, digestAt, digestOfWork, easyBothWays, movingSecondsOf, sideOfDigest } from "./digest";
export { FIT_CHECKS, fitSentences, type KitFit, type KitPlace, type KitSession, kitPlace, NO_FIT, wornAt } from "./fit";
export {
  balanceOf,
  circlingMinutesOf,
  HAND_KINDS,
  LOAD_KINDS,
  type LoadEntry,
  type LoadKind,
  type LoadWeek,
  loadWeeks,
  mondayOf,
  VISIT_MINUTES,
} from "./load";
export {
  type CircleFigures,
  type CircleStretch,
  circleFigures,
  GRAVITY_MPS2,
  lapMetres,
  PACE_METRES,
  speedFromLaps,
  USUAL_SPEED_MPS,
} from "./mechanics";
export { type AskNow, type CircleLimits, type CircleNow, circleNow } from "./now";
export { type PlanSums, planSums, startingPlan } from "./plan";
export {
  RAMP_BREAK_DAYS,
  type RampCaps,
  type RampChange,
  type RampDone,
  type RampInput,
  type RampLoad,
  type RampPlace,
  type RampPlanned,
  type RampStep,
  rampCalendar,
  rampPlace,
  rampProblem,
  rampSteps,
  sessionMinutesOf,
} from "./ramp";
export { type Relearned, relearnedOf, relearnedSentence } from "./relearn";
export { CALL_AHEAD_SECONDS, type ClockFace, clockAt, type ScheduleMark, type Stretch, scheduleOf } from "./schedule";
export { type ChangedSound, type CircleSetup, firstSide, type SetRamp, USUAL_SETUP } from "./setup";
export {
  CIRCLE_SOUND_NAMES,
  CIRCLE_SOUNDS,
  type CircleCall,
  type CircleSound,
  callsOf,
  callsUntil,
  movingBy,
  renderTrack,
  secondsInMotion,
  type TimedCall,
  TRACK_RATE_HERTZ,
  USUAL_SOUNDS,
} from "./track";
export { type TransitionSums, transitionSums } from "./transitions";
export {
  AIDS,
  type Aid,
  CIRCLE_FAULTS,
  type CircleWork,
  COUNTED_FAULTS,
  type CoolDown,
  circleWorkOf,
  type Direction,
  type GaitStretch,
  PEN_FAULTS,
  PEN_SIGNS,
  type Transition,
  wasPoor,
  workedHard,
} from "./work";
export { CIRCLE_BEHAVIOUR, PLAN_RUNG, workedOn } from "./worked-on";
