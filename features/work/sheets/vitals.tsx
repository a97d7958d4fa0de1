"use client";

import { useState } from "react";
import { celsiusToFahrenheit, fahrenheitToCelsius } from "@/core/units";
import { HEART_STRAND, TEMPERATURE_STRAND } from "@/core/welfare";
import { useUnits } from "@/ui/units";

const numberOf = (text: string) => (text.trim() === "" ? Number.NaN : Number(text.replace(",", ".")));

function Noted({ label, onNote, good }: { label: string; onNote: (value: number) => void; good: (value: number) => boolean }) {
  const [typed, setTyped] = useState("");
  const value = numberOf(typed);
  return (
    <div className="flex items-end gap-2">
      <label className="grow text-sm font-semibold">
        {label}
        <input
          inputMode="decimal"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          className="field-box figures mt-1 font-normal"
        />
      </label>
      <button
        type="button"
        className="act-quiet min-h-12"
        disabled={!good(value)}
        onClick={() => {
          onNote(value);
          setTyped("");
        }}
      >
        Note it
      </button>
    </div>
  );
}

/** Heart rate, and the temperature where somebody takes it. */
export function Vitals({ onMeasure }: { onMeasure: (strand: string, value: number, unit: string) => void }) {
  const imperial = useUnits() === "imperial";
  const celsius = (value: number) => (imperial ? fahrenheitToCelsius(value) : value);
  return (
    <div className="grid gap-2">
      <Noted
        label="Heart rate a minute, if you feel the pulse"
        good={(value) => value >= 10 && value <= 300}
        onNote={(value) => onMeasure(HEART_STRAND, value, "a minute")}
      />
      <details>
        <summary className="min-h-11 cursor-pointer text-sm font-semibold">Temperature, if you take it</summary>
        <Noted
          label={`Temperature, ${imperial ? `°F (${celsiusToFahrenheit(38)} is usual)` : "°C (38 is usual)"}`}
          good={(value) => celsius(value) >= 30 && celsius(value) <= 45}
          onNote={(value) => onMeasure(TEMPERATURE_STRAND, Math.round(celsius(value) * 10) / 10, "°C")}
        />
      </details>
    </div>
  );
}
