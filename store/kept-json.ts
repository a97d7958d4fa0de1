import type * as z from "zod";

/**
 * JSON of a column, checked by its schema; undefined where it is no JSON or
 * not what its schema says. A page meets a bad row with a sentence and goes on.
 * @example keptJson(row.kit, textsDocument) // ["halter"]
 */
export function keptJson<T>(text: unknown, schema: z.ZodType<T>): T | undefined {
  if (typeof text !== "string") return undefined;
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return undefined;
  }
  return schema.safeParse(value).data;
}
