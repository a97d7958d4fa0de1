export { CacheKeeper } from "./keeper";
export { type KeptBlock, type KeptRung, type SessionCache, workOut } from "./kept";
export { type NotSummed, notSummedIn } from "./not-summed";
export { readKept } from "./read-kept";
export { catchUp, rebuildCaches, refreshCaches } from "./rebuild";
export { DamagedSumError, opened, openedOrNull } from "./sealed";
export { markAllStale, markStale, overlay, staleSessions } from "./stale";
export { packTrials, TRIAL_FLAGS, type TrialCells } from "./trial-columns";
export { dropKept } from "./write";
