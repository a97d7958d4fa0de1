export { type HandlerChoices, type StartChoices, startChoices, startChoicesByHandler } from "./choices";
export { type CircleKit, type CircleLadder, type CircleStart, circleStart, type PlannerStart, plannerStart } from "./circle-start";
export { batteryPart, freePart } from "./no-ladder";
export { type OpenedSession, openSession } from "./opened";
export { type LadderPart, ladderPart, onlyNamed, type PartFacts } from "./part";
export { type RecorderStart, type RecorderToday, recorderStart } from "./recorder-start";
export { type SessionSoFar, type ShellStart, type ShellToday, type StartSession, type StartYard, shellStart } from "./shell";
export { type PackedStart, packStart, unpackStart } from "./wire";
