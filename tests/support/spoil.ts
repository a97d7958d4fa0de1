/** Every place in a value, as the keys that lead to it; the first is the value itself. */
export function placesOf(value: unknown, path: readonly (string | number)[] = []): (readonly (string | number)[])[] {
  const inner =
    typeof value === "object" && value !== null
      ? Object.entries(value).flatMap(([key, one]) => placesOf(one, [...path, Array.isArray(value) ? Number(key) : key]))
      : [];
  return [path, ...inner];
}

/** A copy with one place set to something else, or left out, as it comes over the wire: a place of a list that is left out is null. */
export function spoilt(value: unknown, path: readonly (string | number)[], to: unknown): unknown {
  const copy: unknown = structuredClone(value);
  const last = path.at(-1);
  if (last === undefined) return to;
  let at = copy as Record<string | number, unknown>;
  for (const key of path.slice(0, -1)) at = at[key] as Record<string | number, unknown>;
  if (to === undefined) delete at[last];
  else at[last] = to;
  return JSON.parse(JSON.stringify(copy));
}

/** What a place may be set to: nothing, wrong kinds, too small, too large. */
export const ODD_VALUES: readonly unknown[] = [
  ...[undefined, null, -1, 0, 0.5, 3, 1e9, "", "x", "0", [], {}, [null], true, "x".repeat(5000), "\u0001"],
];
