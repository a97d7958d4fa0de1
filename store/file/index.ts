export { copyStore } from "./copy";
export { BEGUN_TABLES, type Found, lookAtStore } from "./look";
export { closeToOthers, makeForOwnerAlone } from "./own-only";
export { removeStoreFile, settleOnDisk } from "./paths";
export { StoreFileError } from "./problem";
export { withRaw } from "./raw";
export { finishRestore, type Restored, restoreStore } from "./restore";
