/** Whether a value is one of a list of words. @example isOneOf(["left", "right"], "left") // true */
export const isOneOf = <const Word extends string>(words: readonly Word[], value: unknown): value is Word =>
  (words as readonly unknown[]).includes(value);

/** The place of a text in a list of words, -1 where it is none of them. @example placeIn(["tense", "soft"], "soft") // 1 */
export const placeIn = (words: readonly string[], text: string): number => words.indexOf(text);

/** The keys of an object of which every key is known. @example keysOf({ walk: 1, trot: 2 }) // ["walk", "trot"] */
export const keysOf = <Key extends string>(of: { readonly [K in Key]: unknown }): Key[] => Object.keys(of) as Key[];
