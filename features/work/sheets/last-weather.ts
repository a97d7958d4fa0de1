import type { TypedWeather } from "../../weather";

/** Weather as the preflight of a work session takes it: with the wind. */
export interface TypedWeatherAndWind extends TypedWeather {
  readonly wind: string;
}

const KEY = "deft-weather";
const KEPT_MS = 3 * 3_600_000;
const NOTHING: TypedWeatherAndWind = { air: "", humidity: "", wind: "", sky: null };

/** The weather typed last on this device in the last hours: it hardly changes from horse to horse. */
export function lastWeather(): TypedWeatherAndWind {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? "{}");
    if (typeof kept !== "object" || kept === null || !("atMs" in kept)) return NOTHING;
    if (typeof kept.atMs !== "number" || Date.now() - kept.atMs >= KEPT_MS) return NOTHING;
    const text = (key: string) => {
      const value: unknown = Reflect.get(kept, key);
      return typeof value === "string" ? value : "";
    };
    const sky = text("sky");
    return { air: text("air"), humidity: text("humidity"), wind: text("wind"), sky: sky === "sun" || sky === "shade" ? sky : null };
  } catch {
    return NOTHING;
  }
}

/** Keeps the weather for the next horse. */
export function keepWeather({ air, humidity, wind, sky }: TypedWeatherAndWind): void {
  try {
    localStorage.setItem(KEY, JSON.stringify({ atMs: Date.now(), air, humidity, wind, sky }));
  } catch {
    // It is only a convenience.
  }
}
