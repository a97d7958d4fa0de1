export { type ActCounts, actCountsOf, actTrend, type DatedActs } from "./handler-acts";
export { type OwnTimes, ownTimesOf, ownWaitings } from "./own-times";
export { type Passes, passesOf } from "./passes";
export { type Retreats, retreatsOf } from "./retreats";
export { AFTER_WRONG_SECONDS, type WrongCaution, wrongChoiceCaution } from "./wrong-caution";
export { cameBackWords, type WrongChoices, type WrongHalves, type WrongKind, wrongChoicesOf, wrongsAtWork } from "./wrong-choices";
