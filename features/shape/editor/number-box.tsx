"use client";

import { useId, useState } from "react";

/**
 * A number being typed into the rope. What reads as a number goes in at once;
 * what does not stays in the box with its error, and the rope keeps the last good one.
 */
export function NumberBox({
  id,
  tag = "",
  value,
  onValue,
  label,
  problem,
  className = "",
}: {
  id?: string;
  /** What the number is of: text typed for one thing is not shown for another that takes its box. */
  tag?: string;
  value: number;
  onValue: (value: number) => void;
  label?: string;
  /** What is wrong with the value in the rope, or null. */
  problem: string | null;
  className?: string;
}) {
  const [kept, setKept] = useState<{ text: string; tag: string } | null>(null);
  const typed = kept?.tag === tag ? kept.text : null;
  const read = typed === null || typed.trim() === "" ? Number.NaN : Number(typed.replace(",", "."));
  const bad = typed !== null && !Number.isFinite(read) ? "A number is needed." : problem;
  // While it is typed the text stands by itself; leaving the box shows what the rope holds.
  const shown = typed ?? String(value);
  return (
    <span className={`block ${className}`}>
      <input
        id={id}
        type="text"
        inputMode="decimal"
        aria-label={label}
        aria-invalid={bad !== null}
        title={bad ?? undefined}
        value={shown}
        onChange={(event) => {
          setKept({ text: event.target.value, tag });
          const next = Number(event.target.value.replace(",", "."));
          if (event.target.value.trim() !== "" && Number.isFinite(next)) onValue(next);
        }}
        onBlur={() => setKept(null)}
        className="field-box figures"
      />
      {bad !== null && (
        <span role="alert" className="block text-sm font-semibold text-brick">
          {bad}
        </span>
      )}
    </span>
  );
}

/** A {@link NumberBox} under its label. */
export function LabelledNumber({
  label,
  quiet = false,
  className = "",
  ...box
}: {
  label: string;
  quiet?: boolean;
  className?: string;
  value: number;
  onValue: (value: number) => void;
  problem: string | null;
}) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className={`mb-1 block ${quiet ? "text-sm" : "font-semibold"}`}>
        {label}
      </label>
      <NumberBox id={id} {...box} />
    </div>
  );
}
