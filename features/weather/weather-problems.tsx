import { celsiusToFahrenheit } from "@/core/units";
import { Problem } from "@/ui/form/controls";
import type { Weather } from "./use-weather";

/** What of the weather typed cannot be, with what can. */
export function WeatherProblems({ weather }: { weather: Weather }) {
  const { airWrong, humidityWrong, imperial } = weather;
  return (
    <>
      {airWrong && (
        <Problem>Air: from {imperial ? `${celsiusToFahrenheit(-60)} to ${celsiusToFahrenheit(60)} °F` : "−60 to 60 °C"}.</Problem>
      )}
      {humidityWrong && <Problem>Humidity: from 0 to 100 %.</Problem>}
    </>
  );
}
