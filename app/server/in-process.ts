import "server-only";

/** What is kept for the whole process, under names of its own: the bundles of the pages and the launcher find the same there. */
export const inProcess = <Kept extends object>(): Kept => globalThis as unknown as Kept;
