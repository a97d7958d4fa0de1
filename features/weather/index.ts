export { type HeatReason, HeatStop } from "./heat-stop";
export { type TypedWeather, useWeather, type Weather } from "./use-weather";
export { WeatherProblems } from "./weather-problems";
