/** A stand-in for this program's own address: what leads away from it is no address of ours. */
const HERE = "http://here.invalid";

/**
 * An address of this program as a path, or null where it leads anywhere else:
 * browsers drop tabs and line feeds, and take a backslash for a slash.
 * @example ownAddress("/\t/evil.example") // null
 */
export function ownAddress(address: string): string | null {
  if (!address.startsWith("/")) return null;
  try {
    const url = new URL(address, HERE);
    return url.origin === HERE ? url.pathname + url.search + url.hash : null;
  } catch {
    return null;
  }
}
