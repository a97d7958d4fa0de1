"use client";

import { ArrowDown, ArrowUp, X } from "lucide-react";
import { useState } from "react";
import { CIRCLE_GAITS, type CirclePlan, MOST_SEGMENTS } from "@/core/circle";
import { typedNumber } from "@/ui/form";
import { onAdvice } from "@/ui/form/on-word";
import { SIDE_WORDS } from "../words";
import type { PlanChange } from "./plan-state";

/** Minutes as they are typed; what is no number stays in the box and changes nothing. */
function Minutes({ value, label, onChange }: { value: number; label: string; onChange: (minutes: number) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const number = typed === null ? value : typedNumber(typed);
  const bad = number === null || number < 0.25 || number > 60;
  return (
    <input
      aria-label={label}
      aria-invalid={bad}
      inputMode="decimal"
      value={typed ?? String(value)}
      className={`field-box figures w-20 text-right ${bad ? "border-brick" : ""}`}
      onChange={(event) => {
        setTyped(event.target.value);
        const next = typedNumber(event.target.value);
        if (next !== null && next >= 0.25 && next <= 60) onChange(next);
      }}
      onBlur={() => setTyped(null)}
    />
  );
}

/** The segments of a plan, one a row: gait, way, minutes. */
export function Segments({ plan, change }: { plan: CirclePlan; change: (change: PlanChange) => void }) {
  const { segments } = plan;
  const small = "grid size-11 place-items-center rounded border-2 border-hair disabled:opacity-40";
  return (
    <fieldset>
      <legend className="mb-2 text-lg font-semibold">Segments</legend>
      <ol className="border-b-2 border-hair">
        {segments.map(({ gait, side, minutes }, at) => (
          <li key={at} className="flex flex-wrap items-center gap-2 border-t-2 border-hair py-2">
            <span className="figures w-6 font-head text-lg font-bold">{at + 1}</span>
            <select
              aria-label={`Segment ${at + 1}, gait`}
              value={gait}
              className="field-box w-28"
              onChange={onAdvice(CIRCLE_GAITS, (chosen) => change({ do: "segment", at, change: { gait: chosen } }))}
            >
              {CIRCLE_GAITS.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
            <button
              type="button"
              aria-label={`Segment ${at + 1}, going ${SIDE_WORDS[side]}, change`}
              className="min-h-11 w-24 rounded border-2 border-ink bg-paper font-semibold"
              onClick={() => change({ do: "segment", at, change: { side: side === "L" ? "R" : "L" } })}
            >
              {side === "L" ? "↺ left" : "↻ right"}
            </button>
            <Minutes
              value={minutes}
              label={`Segment ${at + 1}, minutes`}
              onChange={(next) => change({ do: "segment", at, change: { minutes: next } })}
            />
            <span className="text-soft">min</span>
            <span className="ml-auto flex gap-1">
              <button
                type="button"
                className={small}
                aria-label={`Segment ${at + 1} earlier`}
                disabled={at === 0}
                onClick={() => change({ do: "move", at, by: -1 })}
              >
                <ArrowUp size={18} aria-hidden="true" />
              </button>
              <button
                type="button"
                className={small}
                aria-label={`Segment ${at + 1} later`}
                disabled={at === segments.length - 1}
                onClick={() => change({ do: "move", at, by: 1 })}
              >
                <ArrowDown size={18} aria-hidden="true" />
              </button>
              <button
                type="button"
                className={small}
                aria-label={`Take segment ${at + 1} out`}
                disabled={segments.length === 1}
                onClick={() => change({ do: "remove", at })}
              >
                <X size={18} aria-hidden="true" />
              </button>
            </span>
          </li>
        ))}
      </ol>
      <div className="mt-3 flex flex-wrap gap-2">
        <button type="button" className="act-quiet" disabled={segments.length >= MOST_SEGMENTS} onClick={() => change({ do: "add" })}>
          Add a segment
        </button>
        {plan.ways === "both" && (
          <button type="button" className="act-quiet" onClick={() => change({ do: "mirror" })}>
            The same the other way
          </button>
        )}
      </div>
    </fieldset>
  );
}
