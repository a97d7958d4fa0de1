import fc from "fast-check";
import type * as yup from "yup";

/** Stand-ins for what JSON.stringify would not write; {@link hostileText} puts the real thing in. */
const INFINITE = "@@infinite@@";
const DEEP = "@@deep@@";
const PROTO_KEY = "@@proto@@";

/** Values that break careless programs, whatever was asked for. */
export const hostileValue: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom<unknown>(
    null,
    "",
    " ",
    "\0",
    "a\u0000b",
    "\ud800",
    "x".repeat(10_000),
    "constructor",
    "__proto__",
    "toString",
    "hasOwnProperty",
    "' OR 1=1 --",
    "<script>alert(1)</script>",
    "2026-02-31",
    "1e999",
    "NaN",
    -0,
    -1,
    2 ** 53,
    1e308,
    5e-324,
    INFINITE,
    DEEP,
    true,
    [],
    {},
    { toString: 1 },
    { constructor: { prototype: {} } },
    { [PROTO_KEY]: { sample: true } },
    Array(2500).fill(0),
    Array(300).fill({}),
  ),
  fc.jsonValue({ maxDepth: 4 }),
);

/** A body as text, with the values in it that no value can hold. */
export const hostileText = (value: unknown): string =>
  (JSON.stringify(value) ?? "")
    .replaceAll(`"${INFINITE}"`, "1e999")
    .replaceAll(`"${DEEP}"`, `${"[".repeat(4000)}${"]".repeat(4000)}`)
    .replaceAll(PROTO_KEY, "__proto__");

interface Described {
  readonly type?: string;
  readonly oneOf?: readonly unknown[];
  readonly nullable?: boolean;
  readonly optional?: boolean;
  readonly tests?: readonly { readonly name?: string; readonly params?: Record<string, unknown> }[];
  readonly fields?: Record<string, Described>;
  readonly innerType?: Described;
}

const limit = (described: Described, name: string, otherwise: number): number => {
  const value = described.tests?.find((test) => test.name === name)?.params?.[name];
  return typeof value === "number" ? value : otherwise;
};

const maybe = (described: Described, value: fc.Arbitrary<unknown>): fc.Arbitrary<unknown> =>
  described.nullable === true ? fc.option(value, { freq: 4 }) : value;

function arbitraryOf(described: Described): fc.Arbitrary<unknown> {
  const choices = (described.oneOf ?? []).filter((one) => one !== null && one !== undefined);
  if (choices.length > 0) return maybe(described, fc.constantFrom(...choices));
  switch (described.type) {
    case "string":
      return maybe(
        described,
        fc.oneof(fc.uuid(), fc.string({ maxLength: 12 }), fc.constantFrom("2026-03-04", "2020-01-01", "left", "form", "Ní Žižka")),
      );
    case "number": {
      const [least, most] = [limit(described, "min", 0), limit(described, "max", 20)];
      return maybe(
        described,
        fc.oneof(fc.integer({ min: Math.ceil(least), max: Math.max(Math.ceil(least), Math.floor(most)) }), fc.constant(least)),
      );
    }
    case "boolean":
      return maybe(described, fc.boolean());
    case "array":
      return maybe(
        described,
        fc.array(described.innerType === undefined ? hostileValue : arbitraryOf(described.innerType), { maxLength: 3 }),
      );
    case "object": {
      const fields = Object.entries(described.fields ?? {});
      const parts = Object.fromEntries(fields.map(([key, field]) => [key, arbitraryOf(field)]));
      const required = fields.filter(([, field]) => field.optional !== true).map(([key]) => key);
      return maybe(described, fc.record(parts, { requiredKeys: required }));
    }
    default:
      return hostileValue;
  }
}

/** Values of a schema's own shape: most pass it, all get past its first look. */
export const shapedLike = (schema: yup.AnySchema): fc.Arbitrary<unknown> => arbitraryOf(schema.describe() as Described);

const pathsOf = (value: unknown, path: readonly (string | number)[] = []): (readonly (string | number)[])[] =>
  typeof value !== "object" || value === null
    ? [path]
    : [path, ...Object.entries(value).flatMap(([key, item]) => pathsOf(item, [...path, Array.isArray(value) ? Number(key) : key]))];

function withAt(value: unknown, [key, ...rest]: readonly (string | number)[], put: unknown): unknown {
  if (key === undefined) return put;
  if (Array.isArray(value)) return value.map((item: unknown, i) => (i === key ? withAt(item, rest, put) : item));
  return Object.fromEntries(
    Object.entries(value as Record<string, unknown>).map(([name, item]) => [name, name === key ? withAt(item, rest, put) : item]),
  );
}

/** Makes something of a value that its reader did not ask for: a value put in anywhere, a key that is not known. */
export const spoilt = (value: fc.Arbitrary<unknown>): fc.Arbitrary<unknown> =>
  fc.tuple(value, fc.nat(), hostileValue, fc.constantFrom("as-is", "put", "put", "key")).map(([whole, at, put, how]) => {
    if (how === "as-is") return whole;
    const paths = pathsOf(whole);
    if (how === "put") return withAt(whole, paths[at % paths.length] ?? [], put);
    const keys = ["id", "sample", "created_ms", "horse_id", PROTO_KEY, "toString", "constructor", "zz"];
    return typeof whole === "object" && whole !== null && !Array.isArray(whole) ? { ...whole, [keys[at % keys.length] ?? "zz"]: put } : put;
  });
