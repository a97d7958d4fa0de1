export { CacheKeeper } from "./keeper";
export { type Kept, type KeptBlock, type KeptRung, workOut } from "./kept";
export { type NotSummed, notSummedIn } from "./not-summed";
export { readKept } from "./read-kept";
export { catchUp, rebuildCaches, refreshCaches } from "./rebuild";
export { DamagedSumError, opened, openedOrNull } from "./sealed";
export { markAllStale, markStale, overlay, staleSessions } from "./stale";
export { type PackedTrial, packTrials, TRIAL_FLAGS } from "./trial-columns";
export { dropKept } from "./write";
