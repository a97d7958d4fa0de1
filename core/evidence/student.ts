import { incompleteBeta } from "./special";

/** Chance that Student's t with so many degrees of freedom lies beyond ±t. @example studentTwoSidedP(7.45, 2) // 0.01754 */
export function studentTwoSidedP(t: number, degrees: number): number {
  if (!(degrees > 0)) throw new RangeError("studentTwoSidedP: degrees must be above 0");
  return incompleteBeta(degrees / (degrees + t * t), degrees / 2, 0.5);
}

const known = new Map<number, number>();

/**
 * The 97.5 % point of Student's t (Student 1908), by bisection on the
 * incomplete beta function.
 * @throws RangeError where degrees is not a whole number from 1.
 * @example student975(10) // 2.228139
 */
export function student975(degrees: number): number {
  if (!Number.isInteger(degrees) || degrees < 1) throw new RangeError("student975: degrees must be a whole number from 1");
  const have = known.get(degrees);
  if (have !== undefined) return have;
  let low = 1.9;
  let high = 13;
  while (high - low > 1e-12 * high) {
    const middle = (low + high) / 2;
    if (studentTwoSidedP(middle, degrees) > 0.05) low = middle;
    else high = middle;
    if (middle === low && middle === high) break;
  }
  const t = (low + high) / 2;
  known.set(degrees, t);
  return t;
}
