import { celsiusToFahrenheit } from "../units";

export const HEAT_LEVELS = ["usual", "watch", "cut", "stop"] as const;
export type HeatLevel = (typeof HEAT_LEVELS)[number];

/** What the weather says about work. */
export interface HeatCaution {
  readonly level: HeatLevel;
  /** Air temperature in °F plus relative humidity in per cent. */
  readonly sum: number;
  readonly sentence: string;
}

/** Air °F + humidity %: from here on, watch; cut work; do not work (extension-service rule of thumb, from memory). */
export const HEAT_BOUNDS = { watch: 130, cut: 150, stop: 180 } as const;

const WORDS: Readonly<Record<HeatLevel, string>> = {
  usual: "Usual care: shade and water at hand.",
  watch: "Watch it: shorter work, shade, water, look at the breathing.",
  cut: "Cut the work short and cool the horse actively with water and moving air.",
  stop: "Do not work. Shade and water; call a veterinarian for a horse that does not cool or is dull.",
};

/**
 * The heat caution of a day: the sum of air temperature in °F and relative
 * humidity in per cent. Under 130 usual care; 130 to 150 watch; over 150 cut
 * work; over 180 do not work. Wind is not part of the rule; it is logged.
 * @param airCelsius air temperature in °C.
 * @param humidityPercent relative humidity, 0 to 100.
 * @throws RangeError for a number that cannot be.
 */
export function heatCaution(airCelsius: number, humidityPercent: number): HeatCaution {
  if (!(airCelsius >= -60 && airCelsius <= 60)) throw new RangeError("heatCaution: air temperature must lie between -60 and 60 °C");
  if (!(humidityPercent >= 0 && humidityPercent <= 100)) throw new RangeError("heatCaution: humidity must lie between 0 and 100 %");
  const sum = celsiusToFahrenheit(airCelsius) + humidityPercent;
  const level: HeatLevel = sum > HEAT_BOUNDS.stop ? "stop" : sum > HEAT_BOUNDS.cut ? "cut" : sum >= HEAT_BOUNDS.watch ? "watch" : "usual";
  return { level, sum, sentence: WORDS[level] };
}
