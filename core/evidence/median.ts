import { quantileOfSorted } from "./quantile";

/**
 * The value in the middle; the mean of the two middle ones where there is an even number.
 * @returns null of an empty list.
 * @example medianOf([4, 1, 3, 2]) // 2.5
 */
export const medianOf = (values: readonly number[]): number | null => quantileOfSorted(Float64Array.from(values).sort(), 0.5);

/**
 * The lower of the two middle values, so that it is a value that was seen.
 * @returns null of an empty list.
 * @example lowerMedianOf([4, 1, 3, 2]) // 2
 */
export const lowerMedianOf = (values: readonly number[]): number | null =>
  Float64Array.from(values).sort()[Math.floor((values.length - 1) / 2)] ?? null;
