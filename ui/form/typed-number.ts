/**
 * A number as somebody types it, with a comma or a point.
 * null where nothing is typed, NaN where what is typed is no number.
 */
export function numberTyped(text: string): number | null {
  const bare = text.trim().replace(",", ".");
  return bare === "" ? null : Number(bare);
}

/** A number as somebody types it; null where it is none. */
export function typedNumber(text: string): number | null {
  const value = numberTyped(text);
  return value === null || !Number.isFinite(value) ? null : value;
}

/** A count as it is typed: nothing is none, and what is no number is NaN. */
export const typedCount = (text: string): number => numberTyped(text) ?? 0;

/** Whether what is typed is no number from `least` to `most`. Nothing typed is not wrong. */
export function isOutOf(value: number | null, least: number, most: number): boolean {
  return value !== null && !(value >= least && value <= most);
}
