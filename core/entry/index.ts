export { type LateBlock, type LateSession, lateBlockProblem, lateEvents, MOST_LATE_TRIALS, spreadEvenly } from "./late-entry";
export { ONE_BUTTON, OneButton } from "./one-button";
export { isWrittenLoad, WRITTEN_NAMESPACE } from "./written";
