/** JSON of a column, checked for its shape; undefined where it cannot be read. A page meets a bad row with a sentence and goes on. */
export function keptJson<T>(text: unknown, is: (value: unknown) => boolean): T | undefined {
  if (typeof text !== "string") return undefined;
  try {
    const value: unknown = JSON.parse(text);
    return is(value) ? (value as T) : undefined;
  } catch {
    return undefined;
  }
}

export const isList = (value: unknown): boolean => Array.isArray(value);
export const isRecord = (value: unknown): boolean => typeof value === "object" && value !== null && !Array.isArray(value);
/** A list of texts. */
export const isTexts = (value: unknown): boolean => Array.isArray(value) && value.every((one) => typeof one === "string");
