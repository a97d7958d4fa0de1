/**
 * Units the product keeps and shows. Everything is stored in SI-style base
 * units (cm, m, kg, s, °C); these helpers only convert for reading and typing.
 */

/** Exact by definition: the international foot, 1959. */
export const METRES_PER_FOOT = 0.3048;
/** Exact by definition: the international avoirdupois pound, 1959. */
export const KILOGRAMS_PER_POUND = 0.45359237;
/** Exact by definition: one inch. */
export const CENTIMETRES_PER_INCH = 2.54;
export const MILLISECONDS_PER_SECOND = 1000;
export const SECONDS_PER_MINUTE = 60;
export const MILLISECONDS_PER_DAY = 86_400_000;

/** Which units a person reads and types. */
export type UnitSystem = "metric" | "imperial";

/** Metres to feet. @example metresToFeet(2.1336) // 7 */
export function metresToFeet(metres: number): number {
  return metres / METRES_PER_FOOT;
}

/** Feet to metres. @example feetToMetres(7) // 2.1336 */
export function feetToMetres(feet: number): number {
  return feet * METRES_PER_FOOT;
}

/** Kilograms to pounds. @example kilogramsToPounds(kilograms) // 7 */
export function kilogramsToPounds(kilograms: number): number {
  return kilograms / KILOGRAMS_PER_POUND;
}

/** Pounds to kilograms. @example poundsToKilograms(7) // 3.175 */
export function poundsToKilograms(pounds: number): number {
  return pounds * KILOGRAMS_PER_POUND;
}

/** Degrees Celsius to degrees Fahrenheit. @example celsiusToFahrenheit(0) // 32 */
export function celsiusToFahrenheit(celsius: number): number {
  return (celsius * 9) / 5 + 32;
}

/** Degrees Fahrenheit to degrees Celsius. @example fahrenheitToCelsius(212) // 100 */
export function fahrenheitToCelsius(fahrenheit: number): number {
  return ((fahrenheit - 32) * 5) / 9;
}

/** Centimetres to inches. @example centimetresToInches(150) // 59.06 */
export function centimetresToInches(centimetres: number): number {
  return centimetres / CENTIMETRES_PER_INCH;
}

/** Inches to centimetres. @example inchesToCentimetres(inches) // 150 */
export function inchesToCentimetres(inches: number): number {
  return inches * CENTIMETRES_PER_INCH;
}

/**
 * Height at the withers in hands, as horse people write it: 14.2 means
 * fourteen hands and two inches (a hand is four inches).
 * @example centimetresToHands(147.32) // "14.2"
 */
export function centimetresToHands(centimetres: number): string {
  const inches = Math.round(centimetresToInches(centimetres));
  return `${Math.floor(inches / 4)}.${inches % 4}`;
}
