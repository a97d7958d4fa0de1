export { CALCULATIONS, CalcInputError } from "./calc";
