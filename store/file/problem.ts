/** Why a store's file cannot be used, in a sentence for the person at the keyboard, with what to do about it. */
export class StoreFileError extends Error {
  readonly code = "store-file";
}
