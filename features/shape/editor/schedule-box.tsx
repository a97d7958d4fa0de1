"use client";

import type { Schedule } from "@/core/ladder";
import { scheduleSentence } from "@/core/ladder";
import { keysOf } from "@/core/typed";
import { onAdvice } from "@/ui/form/on-word";
import { NumberBox } from "./number-box";

const KINDS: Record<Schedule["kind"], string> = {
  every: "every met one",
  fixed: "every nth",
  variable: "one in n on average",
};

/** Chooses a schedule of reinforcement; `none` stands for what the ladder says. */
export function ScheduleBox({
  id,
  label,
  value,
  none,
  onChange,
}: {
  id: string;
  label: string;
  value: Schedule | undefined;
  /** Words of the choice to take the ladder's own; left out where there is no such choice. */
  none?: string;
  onChange: (schedule: Schedule | undefined) => void;
}) {
  const ratio = value === undefined || value.kind === "every" ? 2 : value.ratio;
  const whole = Number.isInteger(ratio) && ratio >= 2 && ratio <= 20;
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="mb-1 block font-semibold">
        {label}
      </label>
      <div className="flex items-start gap-2">
        <select
          id={id}
          value={value?.kind ?? ""}
          onChange={onAdvice(["", ...keysOf(KINDS)], (kind) =>
            onChange(kind === "" ? undefined : kind === "every" ? { kind } : { kind, ratio }),
          )}
          className="field-box"
        >
          {none !== undefined && <option value="">{none}</option>}
          {Object.entries(KINDS).map(([kind, words]) => (
            <option key={kind} value={kind}>
              {words}
            </option>
          ))}
        </select>
        {value !== undefined && value.kind !== "every" && (
          <NumberBox
            label={`${label}, n`}
            value={value.ratio}
            problem={whole ? null : "A whole number from 2 to 20."}
            onValue={(next) => onChange({ kind: value.kind, ratio: next })}
            className="w-24 shrink-0"
          />
        )}
      </div>
      {value !== undefined && value.kind !== "every" && <p className="mt-1 text-sm text-soft">{scheduleSentence(value)}</p>}
    </div>
  );
}
