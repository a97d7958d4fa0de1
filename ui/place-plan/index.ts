export { PlacePlan, scaleMetres } from "./place-plan";
