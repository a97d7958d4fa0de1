"use client";

import { useState } from "react";
import { type CirclePlan, PACE_METRES } from "@/core/circle";
import { feetToMetres } from "@/core/units";
import { Choice, isOutOf, NumberBox, numberTyped, typedNumber } from "@/ui/form";
import { lengthUnit, lengthWords, useUnits } from "@/ui/units";
import type { PlanChange } from "./plan-state";

const LEAST_METRES = 2;
const MOST_METRES = 30;

/** A line as it lies in the tack room. */
interface Line {
  readonly id: string;
  readonly name: string;
  readonly lengthMetres: number | null;
}

/** The radius: as metres, as paces stepped out, or as the line let out. */
export function Radius({ plan, lines, change }: { plan: CirclePlan; lines: readonly Line[]; change: (change: PlanChange) => void }) {
  const units = useUnits();
  // A pace is a pace; a length is typed in the units of this device.
  const unit = plan.radiusBy === "paces" ? PACE_METRES : units === "imperial" ? feetToMetres(1) : 1;
  const shown = (metres: number) => String(Math.round((metres / unit) * 10) / 10);
  const [typed, setTyped] = useState<string | null>(null);
  const radius = plan.radiusMetres ?? 8;
  const isRadius = (value: number | null): value is number => value !== null && !isOutOf(value * unit, LEAST_METRES, MOST_METRES);
  const bad = typed !== null && !isRadius(numberTyped(typed));
  return (
    <div className="flex flex-wrap items-end gap-3">
      <Choice
        label="Radius by"
        value={plan.radiusBy}
        width="w-44"
        options={[
          { value: "line", label: `line let out, ${lengthUnit(units)}` },
          "paces",
          { value: "metres", label: units === "imperial" ? "feet" : "metres" },
        ]}
        onChosen={(by) => {
          setTyped(null);
          change({ do: "set", change: { radiusBy: by } });
        }}
      />
      <NumberBox
        label="Radius"
        bad={bad}
        aria-describedby="radius-says"
        value={typed ?? shown(radius)}
        onTyped={(text) => {
          setTyped(text);
          const next = typedNumber(text);
          if (isRadius(next)) change({ do: "set", change: { radiusMetres: Math.round(next * unit * 100) / 100 } });
        }}
        onBlur={() => setTyped(null)}
      />
      {plan.radiusBy === "line" &&
        lines
          .flatMap(({ id, name, lengthMetres }) => (lengthMetres === null || lengthMetres < 4 ? [] : [{ id, name, lengthMetres }]))
          .map(({ id, name, lengthMetres }) => (
            <button
              key={id}
              type="button"
              className="act-quiet"
              onClick={() => change({ do: "set", change: { radiusMetres: lengthMetres } })}
            >
              {name}, {lengthWords(lengthMetres, units)}
            </button>
          ))}
      <p id="radius-says" className={`basis-full text-sm ${bad ? "font-semibold text-brick" : "text-soft"}`}>
        {bad
          ? `Radius: from ${lengthWords(LEAST_METRES, units)} to ${lengthWords(MOST_METRES, units)}.`
          : `A circle ${lengthWords(Math.round(radius * 20) / 10, units)} across${plan.radiusBy === "paces" ? `, ${lengthWords(PACE_METRES, units)} to a pace` : ""}.`}
      </p>
    </div>
  );
}
