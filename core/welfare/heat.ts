import { DEFAULT_SETTINGS, type YardSettings } from "../settings";
import { celsiusToFahrenheit } from "../units";

export const HEAT_LEVELS = ["usual", "watch", "cut", "stop"] as const;
export type HeatLevel = (typeof HEAT_LEVELS)[number];

/** Where the horse works: in the sun, or in shade or under cloud. */
export type Sky = "sun" | "shade";

/** The yard's bounds of wet-bulb globe temperature, in °C. */
export type HeatBounds = Pick<YardSettings, "heatWatchCelsius" | "heatCutCelsius" | "heatStopCelsius">;

/** What the weather says about work. */
export interface HeatCaution {
  readonly level: HeatLevel;
  /** Estimated wet-bulb globe temperature in °C, to a tenth. */
  readonly wbgtCelsius: number;
  readonly sky: Sky;
  /** Air temperature in °F plus relative humidity in per cent, where it is warm and would be stricter; otherwise null. */
  readonly stricterSum: { readonly sum: number; readonly level: HeatLevel } | null;
  /** What to do. */
  readonly sentence: string;
}

/** Air °F + humidity %: from here on, watch; cut work; do not work (extension-service rule of thumb, from memory). */
const SUM_BOUNDS = { watch: 130, cut: 150, stop: 180 } as const;
/** Below this the sum means nothing: cold damp air is no heat. In °C. */
const SUM_FROM_CELSIUS = 20;
/** How much lower the bounds lie for a horse that bears heat badly, in °C (common practice, no source). */
export const BEARS_BADLY_CELSIUS = 3;

/** What shade or cloud takes off the estimate, in °C (common practice, no source). */
const SHADE_CELSIUS = 2;

const WORDS: Readonly<Record<HeatLevel, string>> = {
  usual: "Usual care: shade and water at hand.",
  watch: "Watch it: shorter work, shade, water, look at the breathing.",
  cut: "Cut the work short and cool the horse actively with water and moving air.",
  stop: "Too hot to work. Shade, water over the whole body, moving air. Call a vet for a horse that is dull or does not cool.",
};

const SHORT: Readonly<Record<HeatLevel, string>> = { usual: "usual care", watch: "watch it", cut: "cut the work", stop: "do not work" };

function check(airCelsius: number, humidityPercent: number): void {
  if (!(airCelsius >= -60 && airCelsius <= 60)) throw new RangeError("heatCaution: air temperature must lie between -60 and 60 °C");
  if (!(humidityPercent >= 0 && humidityPercent <= 100)) throw new RangeError("heatCaution: humidity must lie between 0 and 100 %");
}

/**
 * Wet-bulb globe temperature, simplified, for moderate sun and light wind, in
 * °C: 0.567·T + 0.393·e + 3.94 with the vapour pressure e = humidity/100 ·
 * 6.105·exp(17.27·T/(237.7 + T)) in hPa (the approximation of the Australian
 * Bureau of Meteorology, from memory); in shade or under cloud 2 less.
 * @param airCelsius air temperature in °C, −60 to 60.
 * @param humidityPercent relative humidity, 0 to 100.
 * @throws RangeError for a number that cannot be.
 * @example wetBulbGlobeCelsius(25, 50, "sun") // 24.32
 */
export function wetBulbGlobeCelsius(airCelsius: number, humidityPercent: number, sky: Sky): number {
  check(airCelsius, humidityPercent);
  const vapour = (humidityPercent / 100) * 6.105 * Math.exp((17.27 * airCelsius) / (237.7 + airCelsius));
  return 0.567 * airCelsius + 0.393 * vapour + 3.94 - (sky === "shade" ? SHADE_CELSIUS : 0);
}

/**
 * The heat caution of a day, by the estimate of wet-bulb globe temperature:
 * under 25 usual care, 25 to 26 watch, 26 to 30 cut the work, over 30 do not
 * work, where the yard sets nothing else (on the cautious side of published
 * guidance for equestrian competition, from memory, which is for fit,
 * acclimatised horses with veterinarians present). The sum of °F and humidity
 * is a second opinion from 20 °C on, told where it is the stricter one.
 * @param sky where nobody said, the sun: the stricter of the two.
 * @param lowerCelsius by how much every bound lies lower, for a horse that bears heat badly.
 * @throws RangeError for a number that cannot be.
 * @example heatCaution(30, 50) // { level: "cut", wbgtCelsius: 29.3, sky: "sun", … }
 */
export function heatCaution(
  airCelsius: number,
  humidityPercent: number,
  sky: Sky = "sun",
  bounds: HeatBounds = DEFAULT_SETTINGS,
  lowerCelsius = 0,
): HeatCaution {
  const wbgtCelsius = Math.round(wetBulbGlobeCelsius(airCelsius, humidityPercent, sky) * 10) / 10;
  const level: HeatLevel =
    wbgtCelsius > bounds.heatStopCelsius - lowerCelsius
      ? "stop"
      : wbgtCelsius >= bounds.heatCutCelsius - lowerCelsius
        ? "cut"
        : wbgtCelsius >= bounds.heatWatchCelsius - lowerCelsius
          ? "watch"
          : "usual";
  const sum = Math.round(celsiusToFahrenheit(airCelsius) + humidityPercent);
  const sumLevel: HeatLevel = sum > SUM_BOUNDS.stop ? "stop" : sum > SUM_BOUNDS.cut ? "cut" : sum >= SUM_BOUNDS.watch ? "watch" : "usual";
  const stricter = airCelsius >= SUM_FROM_CELSIUS && HEAT_LEVELS.indexOf(sumLevel) > HEAT_LEVELS.indexOf(level);
  return { level, wbgtCelsius, sky, stricterSum: stricter ? { sum, level: sumLevel } : null, sentence: WORDS[level] };
}

/**
 * The estimate with its unit: "Heat 27.6 °C WBGT". @param fahrenheit whether the reader reads °F.
 * @example heatNumber(25.6) // "Heat 25.6 °C WBGT"
 */
export const heatNumber = (wbgtCelsius: number, fahrenheit = false): string =>
  `Heat ${(fahrenheit ? celsiusToFahrenheit(wbgtCelsius) : wbgtCelsius).toFixed(1)} ${fahrenheit ? "°F" : "°C"} WBGT`;

/**
 * The caution in words, with its unit, where it holds and a stricter second opinion.
 * @example heatWords(heatCaution(25, 50)) // "Heat 24.3 °C WBGT, estimated for the sun. Usual care: shade and water at hand."
 */
export function heatWords({ wbgtCelsius, sky, stricterSum, sentence }: HeatCaution, fahrenheit = false): string {
  const where = sky === "sun" ? "the sun" : "shade or cloud";
  const second = stricterSum === null ? "" : ` A second opinion, °F and humidity together ${stricterSum.sum}: ${SHORT[stricterSum.level]}.`;
  return `${heatNumber(wbgtCelsius, fahrenheit)}, estimated for ${where}. ${sentence}${second}`;
}
