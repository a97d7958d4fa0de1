/**
 * The special functions the measures need. General libraries for the browser
 * lack the incomplete beta and gamma functions, so they stand here, each
 * checked against closed forms and published values in special.test.ts.
 */

const LANCZOS_G = 7;
const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905,
  -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
] as const;

const TINY = 1e-300;
const RELATIVE_ERROR = 1e-15;
const MOST_TERMS = 10_000;

/**
 * Natural logarithm of the gamma function for x > 0.
 * Lanczos 1964, coefficients for g = 7, n = 9 (from memory); relative error about 1e-15.
 * @throws RangeError where x is not above 0.
 * @example logGamma(2) // 0
 */
export function logGamma(x: number): number {
  if (!(x > 0)) throw new RangeError("logGamma: x must be above 0");
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  const shifted = x - 1;
  let sum: number = LANCZOS[0];
  for (let i = 1; i < LANCZOS.length; i++) sum += (LANCZOS[i] as number) / (shifted + i);
  const base = shifted + LANCZOS_G + 0.5;
  return 0.5 * Math.log(2 * Math.PI) + (shifted + 0.5) * Math.log(base) - base + Math.log(sum);
}

/** Continued fraction of the incomplete beta function by Lentz's method (DLMF 8.17.22). */
function betaContinuedFraction(x: number, a: number, b: number): number {
  let c = 1;
  let d = 1 - ((a + b) * x) / (a + 1);
  d = 1 / (Math.abs(d) < TINY ? TINY : d);
  let result = d;
  for (let m = 1; m <= MOST_TERMS; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 + even * d;
    d = 1 / (Math.abs(d) < TINY ? TINY : d);
    c = 1 + even / c;
    if (Math.abs(c) < TINY) c = TINY;
    result *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 + odd * d;
    d = 1 / (Math.abs(d) < TINY ? TINY : d);
    c = 1 + odd / c;
    if (Math.abs(c) < TINY) c = TINY;
    const step = d * c;
    result *= step;
    if (Math.abs(step - 1) < RELATIVE_ERROR) return result;
  }
  return result;
}

/**
 * Regularised incomplete beta function I_x(a, b), the chance that a Beta(a, b) variable is at most x.
 * @throws RangeError where x is outside [0, 1] or a shape is not above 0.
 * @example incompleteBeta(0, 1, 1) // 0
 */
export function incompleteBeta(x: number, a: number, b: number): number {
  if (!(x >= 0 && x <= 1)) throw new RangeError("incompleteBeta: x must be from 0 to 1");
  if (!(a > 0 && b > 0)) throw new RangeError("incompleteBeta: a and b must be above 0");
  if (x === 0 || x === 1) return x;
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x));
  if (x < (a + 1) / (a + b + 2)) return (front * betaContinuedFraction(x, a, b)) / a;
  return 1 - (front * betaContinuedFraction(1 - x, b, a)) / b;
}

/**
 * Upper regularised incomplete gamma function Q(a, x): series below a + 1
 * (DLMF 8.7.1), continued fraction above (DLMF 8.9.2).
 * @throws RangeError where a is not above 0 or x is below 0.
 * @example upperIncompleteGamma(10, 2) // 1
 */
export function upperIncompleteGamma(a: number, x: number): number {
  if (!(a > 0)) throw new RangeError("upperIncompleteGamma: a must be above 0");
  if (!(x >= 0)) throw new RangeError("upperIncompleteGamma: x must be at least 0");
  if (x === 0) return 1;
  const front = Math.exp(a * Math.log(x) - x - logGamma(a));
  if (x < a + 1) {
    let term = 1 / a;
    let sum = term;
    for (let n = 1; n <= MOST_TERMS; n++) {
      term *= x / (a + n);
      sum += term;
      if (term < sum * RELATIVE_ERROR) break;
    }
    return 1 - front * sum;
  }
  let b = x + 1 - a;
  let c = 1 / TINY;
  let d = 1 / b;
  let result = d;
  for (let n = 1; n <= MOST_TERMS; n++) {
    const an = -n * (n - a);
    b += 2;
    d = an * d + b;
    d = 1 / (Math.abs(d) < TINY ? TINY : d);
    c = b + an / c;
    if (Math.abs(c) < TINY) c = TINY;
    const step = d * c;
    result *= step;
    if (Math.abs(step - 1) < RELATIVE_ERROR) break;
  }
  return front * result;
}

/**
 * Chance that a chi-squared variable with `degrees` degrees of freedom is at least `value`.
 * @throws RangeError where degrees is not above 0 or value is below 0.
 * @example chiSquaredUpperTail(0, 1) // 1
 */
export function chiSquaredUpperTail(value: number, degrees: number): number {
  return upperIncompleteGamma(degrees / 2, value / 2);
}

/**
 * The value a chi-squared variable stays at or under with chance `share`, by
 * bisection on the upper tail; exact to about 1e-12 of the value.
 * @throws RangeError where share is not inside (0, 1) or degrees is not above 0.
 * @example chiSquaredQuantile(0.2, 7) // 3.822
 */
export function chiSquaredQuantile(share: number, degrees: number): number {
  if (!(share > 0 && share < 1)) throw new RangeError("chiSquaredQuantile: share must lie between 0 and 1");
  if (!(degrees > 0)) throw new RangeError("chiSquaredQuantile: degrees must be above 0");
  const above = 1 - share;
  let low = 0;
  let high = Math.max(1, degrees);
  while (chiSquaredUpperTail(high, degrees) > above) high *= 2;
  while (high - low > 1e-13 * high) {
    const middle = (low + high) / 2;
    if (middle === low || middle === high) break;
    if (chiSquaredUpperTail(middle, degrees) > above) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * The value a Beta(a, b) lies below with the given chance, by bisection on the incomplete beta function.
 * @throws RangeError where the share is not between 0 and 1.
 * @example betaQuantile(0.5, 1, 1) // 0.5
 */
export function betaQuantile(share: number, a: number, b: number): number {
  if (!(share > 0 && share < 1)) throw new RangeError("betaQuantile: the share must lie between 0 and 1");
  let low = 0;
  let high = 1;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (incompleteBeta(middle, a, b) < share) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
