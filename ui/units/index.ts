export { UnitsProvider, useUnits } from "./provider";
export { isUnitSystem, lengthUnit, lengthWords, massWords, shownLength, typedMetres, UNITS_COOKIE } from "./words";
