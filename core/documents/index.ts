import * as z from "zod";
import { CONTROL_IN_NAME, CONTROL_IN_TEXT, NAME_MOST_CHARACTERS, TEXT_MOST_CHARACTERS } from "../checks/limits";

/**
 * The pieces documents are made of: read-only all the way down, in type and in
 * fact, and with these keys alone. What is not known is refused, not dropped.
 * @example document(shape)
 */
export const document = <Shape extends z.ZodRawShape>(shape: Shape) => z.strictObject(shape).readonly();
/** A list of so many at most. @example list(z.string(), 20) */
export const list = <Item extends z.ZodType>(item: Item, most = 1000) => z.array(item).max(most).readonly();
/** One of these words. @example word(["both", "turn"]) */
export const word = <const Words extends readonly string[]>(words: Words) => z.enum(words);
const without = (pattern: RegExp) => (value: string) => !pattern.test(value);
/** A text, may be empty; of no more than a note holds. */
export const text = z.string().max(TEXT_MOST_CHARACTERS).refine(without(CONTROL_IN_TEXT));
/** A name: it is shown, so it is not empty. */
export const name = z.string().max(NAME_MOST_CHARACTERS).regex(/\S/).refine(without(CONTROL_IN_NAME));
export const number = z.number();
export const wholeNumber = z.int();
export const flag = z.boolean();
export const side = z.enum(["L", "R"]);
/** A number from the least to the most, both counted in. @example within(of, [1, 5]) */
export const within = (of: z.ZodNumber | z.ZodInt, [least, most]: readonly [number, number]) => of.min(least).max(most);
/** A list of texts: the names of kit that is worn, for one. */
export const textsDocument = list(text);
