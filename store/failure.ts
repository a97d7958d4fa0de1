/** Which constraint of a table a write broke, or null where it is something else. */
export function brokenConstraint(error: unknown): "foreign-key" | "unique" | null {
  const parent: unknown = error instanceof Error && "parent" in error ? error.parent : error;
  if (!(parent instanceof Error) || !("code" in parent) || parent.code !== "SQLITE_CONSTRAINT") return null;
  if (parent.message.includes("FOREIGN KEY")) return "foreign-key";
  return /UNIQUE|PRIMARY KEY/.test(parent.message) ? "unique" : null;
}

/** What kept the store from doing a thing, as far as its user can do something about it. */
export type StoreFailure = "held" | "full" | "unwritable" | "damaged";

const CODES: readonly (readonly [pattern: RegExp, StoreFailure])[] = [
  [/SQLITE_(BUSY|LOCKED)/, "held"],
  [/SQLITE_FULL|ENOSPC/, "full"],
  [/SQLITE_(READONLY|CANTOPEN|IOERR|PERM|AUTH)|EROFS|EACCES|EPERM|EIO|ENOTDIR|EEXIST/, "unwritable"],
  [/SQLITE_(CORRUPT|NOTADB)/, "damaged"],
];

/** What an error of the store or of the disk under it means, or null where it is something else. */
export function storeFailure(error: unknown): StoreFailure | null {
  if (!(error instanceof Error)) return null;
  const parent: unknown = "parent" in error ? error.parent : undefined;
  const code = [error, parent].map((one) => (one instanceof Error ? `${"code" in one ? one.code : ""} ${one.message}` : "")).join(" ");
  return CODES.find(([pattern]) => pattern.test(code))?.[1] ?? null;
}
