export { CacheKeeper } from "./keeper";
export { type Kept, type KeptBlock, type KeptRung, workOut } from "./kept";
export { type NotSummed, notSummedIn } from "./not-summed";
export { catchUp, rebuildCaches, refreshCaches } from "./rebuild";
export { markAllStale, markStale, overlay, staleSessions } from "./stale";
export { dropKept, TRIAL_FLAGS } from "./write";
