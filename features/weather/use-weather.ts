import { useState } from "react";
import type { YardSettings } from "@/core/settings";
import { fahrenheitToCelsius } from "@/core/units";
import { type HeatCaution, heatCaution, type Sky } from "@/core/welfare";
import { isOutOf, numberTyped } from "@/ui/form/typed-number";
import { useUnits } from "@/ui/units";
import type { HeatReason } from "./heat-stop";

/** Weather as it is typed. */
export interface TypedWeather {
  readonly air: string;
  readonly humidity: string;
  readonly sky: Sky | null;
}

/** Weather as it is typed, what it comes to, and what of it will not do. */
export interface Weather extends TypedWeather {
  readonly setAir: (text: string) => void;
  readonly setHumidity: (text: string) => void;
  readonly setSky: (sky: Sky | null) => void;
  readonly imperial: boolean;
  /** In °C to a tenth; null where nothing is typed, NaN where it is no number. */
  readonly airCelsius: number | null;
  /** In %. */
  readonly humidityPercent: number | null;
  readonly airWrong: boolean;
  readonly humidityWrong: boolean;
  /** Null until both are typed and can be. */
  readonly heat: HeatCaution | null;
  readonly tooHot: boolean;
  /** Whether the sun would make it hot: then sun or shade matters. */
  readonly sunMatters: boolean;
  /** Why five minutes at walk are begun all the same. */
  readonly reason: HeatReason | null;
  readonly setReason: (reason: HeatReason | null) => void;
}

/** The weather before work and what it says of heat, judged for the yard's settings and this horse. */
export function useWeather(first: TypedWeather, settings: YardSettings, heatLowerCelsius: number): Weather {
  const imperial = useUnits() === "imperial";
  const [air, setAir] = useState(first.air);
  const [humidity, setHumidity] = useState(first.humidity);
  const [sky, setSky] = useState(first.sky);
  const [reason, setReason] = useState<HeatReason | null>(null);
  const typed = numberTyped(air);
  const airCelsius = typed === null ? null : Math.round((imperial ? fahrenheitToCelsius(typed) : typed) * 10) / 10;
  const humidityPercent = numberTyped(humidity);
  const airWrong = isOutOf(airCelsius, -60, 60);
  const humidityWrong = isOutOf(humidityPercent, 0, 100);
  const heatIn = (where: Sky) =>
    airCelsius === null || humidityPercent === null || airWrong || humidityWrong
      ? null
      : heatCaution(airCelsius, humidityPercent, where, settings, heatLowerCelsius);
  const heat = heatIn(sky ?? "sun");
  return {
    air,
    setAir,
    humidity,
    setHumidity,
    sky,
    setSky,
    imperial,
    airCelsius,
    humidityPercent,
    airWrong,
    humidityWrong,
    heat,
    tooHot: heat?.level === "stop",
    sunMatters: (heatIn("sun")?.level ?? "usual") !== "usual",
    reason,
    setReason,
  };
}
