/** Whether a value is one of a list of words. @example isOneOf(["left", "right"], "left") // true */
export const isOneOf = <const Word extends string>(words: readonly Word[], value: unknown): value is Word =>
  (words as readonly unknown[]).includes(value);

/** The place of a text in a list of words, -1 where it is none of them. @example placeIn(["tense", "soft"], "soft") // 1 */
export const placeIn = (words: readonly string[], text: string): number => words.indexOf(text);

/** The keys of an object of which every key is known. @example keysOf({ walk: 1, trot: 2 }) // ["walk", "trot"] */
export const keysOf = <Key extends string>(of: { readonly [K in Key]: unknown }): Key[] => Object.keys(of) as Key[];

/** Whether a value is an object with keys, and no list. @example isRecord([]) // false */
export const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** What stands under a value's keys; nothing where it has none. @example fieldsOf('{"on":true}').on // undefined */
export const fieldsOf = (value: unknown): Readonly<Record<string, unknown>> => (isRecord(value) ? value : {});

/** A value for each of some keys. @example recordOf(["walk", "trot"], () => 0) // { walk: 0, trot: 0 } */
export const recordOf = <Key extends string, Value>(keys: readonly Key[], of: (key: Key) => Value): Record<Key, Value> =>
  Object.fromEntries(keys.map((key) => [key, of(key)])) as Record<Key, Value>;

/** Whether a value is a whole number that is exact. @example isWhole("3") // false */
export const isWhole = (value: unknown): value is number => Number.isSafeInteger(value);
