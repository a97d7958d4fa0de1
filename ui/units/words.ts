import { feetToMetres, kilogramsToPounds, metresToFeet, type UnitSystem } from "@/core/units";

export const UNITS_COOKIE = "deft-units";

export const isUnitSystem = (value: unknown): value is UnitSystem => value === "metric" || value === "imperial";

const short = (value: number, places: number) => String(Math.round(value * 10 ** places) / 10 ** places);

/** A length as it is read: "3.5 m" or "11.5 ft". */
export const lengthWords = (metres: number, units: UnitSystem) =>
  units === "metric" ? `${short(metres, 2)} m` : `${short(metresToFeet(metres), 1)} ft`;

/** A mass as it is read: "462 kg" or "1019 lb". */
export const massWords = (kilograms: number, units: UnitSystem) =>
  units === "metric" ? `${short(kilograms, 1)} kg` : `${short(kilogramsToPounds(kilograms), 0)} lb`;

/** The unit of a length field. */
export const lengthUnit = (units: UnitSystem) => (units === "metric" ? "m" : "ft");

/** A typed length in metres, to the millimetre; anything that is no number is left for the schema to name. */
export function typedMetres(typed: unknown, units: UnitSystem): unknown {
  const value = typeof typed === "string" ? (typed.trim() === "" ? null : Number(typed.replace(",", "."))) : typed;
  return typeof value === "number" && Number.isFinite(value) && units === "imperial"
    ? Math.round(feetToMetres(value) * 1000) / 1000
    : value;
}

/** A length as a field shows it, in the units typed. */
export const shownLength = (metres: number | null, units: UnitSystem): string =>
  metres === null ? "" : units === "metric" ? short(metres, 2) : short(metresToFeet(metres), 2);
