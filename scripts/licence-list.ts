/** Licences that ask for no more than their text to go along, or that bind no program that only uses the package. */
const FREE: ReadonlySet<string> = new Set([
  ...["MIT", "ISC", "0BSD", "BSD-2-Clause", "BSD-3-Clause", "Apache-2.0", "Unlicense", "CC0-1.0", "BlueOak-1.0.0", "Python-2.0"],
  ...["MIT-0", "WTFPL", "BSL-1.0", "OFL-1.1", "CC-BY-4.0", "MPL-2.0", "LGPL-3.0-or-later"],
]);

interface Locked {
  readonly version?: string;
  readonly license?: string;
  readonly dev?: boolean;
}

/** A choice is free where one of its parts is, a sum where each is. */
export const isFree = (licence: string): boolean =>
  licence
    .replace(/[()]/g, "")
    .split(" OR ")
    .some((choice) => choice.split(" AND ").every((one) => FREE.has(one.trim())));

/** What is installed by its licence, read from the lock file; beside it what has none that is known to be free. */
export function licencesOf(lock: { readonly packages: Readonly<Record<string, Locked>> }) {
  const byLicence = new Map<string, string[]>();
  const asking: string[] = [];
  for (const [path, { version = "", license = "none", dev = false }] of Object.entries(lock.packages)) {
    if (path === "") continue;
    const name = `${path.slice(path.lastIndexOf("node_modules/") + "node_modules/".length)} ${version}${dev ? ", for development" : ""}`;
    byLicence.set(license, [...(byLicence.get(license) ?? []), name]);
    if (!isFree(license)) asking.push(`${name}: ${license}`);
  }
  return { byLicence, asking };
}
