import { fieldsOf, isWhole } from "../typed";
/** Bands a look is summed into, evenly spaced in their logarithm. */
export const BANDS = 24;
/** A marker lasts at most so many looks of 5 ms. */
export const LONGEST_LOOKS = 60;
/** Looks before the onset that belong to a marker: it is told by the quiet before it too. */
export const LEAD_LOOKS = 2;

/** A marker as it was taught: what of it stands out of the noise, look by look and band by band, of mean 0 and length 1. */
export interface MarkTemplate {
  readonly looks: number;
  /** `looks` times 24 numbers, look by look. */
  readonly patch: readonly number[];
  /** How alike a sound must be to count, from 0 to 1. */
  readonly threshold: number;
}

/** Whether what was kept on a device is a template. @example isTemplate(3) // false */
export function isTemplate(value: unknown): value is MarkTemplate {
  const { looks, patch, threshold } = fieldsOf(value);
  return (
    isWhole(looks) &&
    looks > 0 &&
    looks <= LONGEST_LOOKS + LEAD_LOOKS &&
    Array.isArray(patch) &&
    patch.length === looks * BANDS &&
    patch.every((one) => typeof one === "number" && Number.isFinite(one)) &&
    typeof threshold === "number" &&
    threshold > 0 &&
    threshold < 1
  );
}
