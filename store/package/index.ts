export { type Brought, bringEvents, bringTrials } from "./bring";
export type { BroughtHorse, WhoseRows } from "./destinations";
export { type Merged, mergeStore } from "./merge";
export { CancelledError, type Reading, readPackage } from "./read";
export { EVENTS_FILE, LEFT_OUT, PACKED_TABLES, SETTINGS_FILE } from "./tables";
export { writePackage } from "./write";
