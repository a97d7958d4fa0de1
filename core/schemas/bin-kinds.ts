/** What can go to the bin as a thing of its own. */
export const BIN_KINDS = ["horse", "ladder", "chain", "session", "person", "place", "kit"] as const;
export type BinKind = (typeof BIN_KINDS)[number];

/** How long what is in the bin can be brought back, in days. */
export const BIN_DAYS = 30;
