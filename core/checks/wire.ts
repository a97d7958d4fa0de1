/** How large a posted body may be in its parts: a person's form, or a batch of a recorder's taps. */
export interface WireLimits {
  readonly depth: number;
  readonly arrayItems: number;
  readonly values: number;
}

/** The largest ladder has 40 rungs of 12 strands. */
export const FORM_LIMITS: WireLimits = { depth: 12, arrayItems: 500, values: 20_000 };
export const BATCH_LIMITS: WireLimits = { depth: 16, arrayItems: 2001, values: 150_000 };

/** Keys that every object has already, and the one by which the schema library knows a reference of its own. */
const NOT_A_NAME = new Set(Object.getOwnPropertyNames(Object.prototype).concat("prototype", "__isYupRef"));

function ownProblem(value: unknown): string | null {
  if (typeof value === "number" && !Number.isFinite(value)) return "A number is too large.";
  if (typeof value === "string" && value.includes("\0")) return "A text holds a character that is none (NUL).";
  return null;
}

/**
 * What makes a value unfit to be looked at any further, or null: nested too
 * deep, too much of it, a number beyond all numbers, a NUL in a text, a key
 * every object has already. Walks without recursion; cost grows with the
 * values, and stops at the limit.
 *
 * @example wireProblem({ a: [1, 2] }, FORM_LIMITS) // null
 */
export function wireProblem(value: unknown, limits: WireLimits): string | null {
  const waiting: { value: unknown; depth: number }[] = [{ value, depth: 0 }];
  let seen = 0;
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (++seen > limits.values) return "There is too much in it.";
    const problem = ownProblem(next.value);
    if (problem !== null) return problem;
    if (typeof next.value !== "object" || next.value === null) continue;
    if (next.depth >= limits.depth) return "It is nested too deep.";
    const depth = next.depth + 1;
    if (Array.isArray(next.value)) {
      if (next.value.length > limits.arrayItems) return `A list has more than ${limits.arrayItems} items.`;
      for (const item of next.value as unknown[]) waiting.push({ value: item, depth });
      continue;
    }
    for (const [key, item] of Object.entries(next.value)) {
      if (NOT_A_NAME.has(key)) return `“${key}” is no name for anything here.`;
      if (key.includes("\0")) return "A name holds a character that is none (NUL).";
      waiting.push({ value: item, depth });
    }
  }
  return null;
}

/** JSON read from a body, or what is wrong with it. */
export type ReadWire = { readonly value: unknown } | { readonly problem: string };

/**
 * Reads a posted body. Nothing that passes can upset what looks at it next.
 *
 * @example readWire('{"name":"Tarn"}', FORM_LIMITS) // { value: { name: "Tarn" } }
 */
export function readWire(text: string, limits: WireLimits): ReadWire {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return { problem: "The body is not JSON." };
  }
  const problem = wireProblem(value, limits);
  return problem === null ? { value } : { problem };
}
