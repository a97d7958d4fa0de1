"use client";

import type { Dispatch } from "react";
import { type WayChoice, type Ways, wayOf } from "@/core/ladder";
import type { RopeAction } from "./use-rope";

/** Where trainers disagree: both reasons side by side, one of them chosen. */
export function WayFields({
  choices,
  ways,
  dispatch,
  onPressure,
}: {
  choices: readonly WayChoice[];
  ways: Ways;
  dispatch: Dispatch<RopeAction>;
  /** The way of pressing is kept in the phases themselves. */
  onPressure: (profile: "steady" | "rising") => void;
}) {
  return (
    <div className="grid gap-5">
      {choices.map(({ key, question, options }) => {
        const chosen = wayOf(ways, key).value;
        return (
          <fieldset key={key} className="min-w-0">
            <legend className="mb-1 font-semibold">{question}</legend>
            <div className="grid gap-x-6 gap-y-2 sm:grid-cols-2">
              {options.map((option) => {
                const { value, name, reason, changes, cautions = [] } = option;
                return (
                  <label
                    key={value}
                    className={`grid grid-cols-[1.5rem_1fr] content-start gap-x-2 border-l-4 py-1 pl-3 ${chosen === value ? "border-tarn bg-paper" : "border-hair"}`}
                  >
                    <input
                      type="radio"
                      name={`way-${key}`}
                      checked={chosen === value}
                      onChange={() => {
                        dispatch({ kind: "way", key, value });
                        if (key === "pressure") onPressure(value === "rising" ? "rising" : "steady");
                      }}
                      className="mt-1 size-5 accent-(--tarn)"
                    />
                    <span>
                      <strong>{name}</strong>
                      <span className="block text-sm">{reason}</span>
                      <span className="block text-sm text-soft">{changes}</span>
                      {chosen === value &&
                        cautions.map((caution) => (
                          <span key={caution} className="block text-sm font-semibold text-brick">
                            {caution}
                          </span>
                        ))}
                    </span>
                  </label>
                );
              })}
            </div>
          </fieldset>
        );
      })}
    </div>
  );
}
