"use client";

import { PART_WORDS, PARTS, type Part } from "@/core/events/parts";

/** What somebody does at the horse while another is there too. */
export function PartChoice({ value, onChange }: { value: Part | undefined; onChange: (part: Part | undefined) => void }) {
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">My part</legend>
      <div className="flex flex-wrap gap-1.5">
        {PARTS.map((part) => (
          <button
            key={part}
            type="button"
            aria-pressed={value === part}
            onClick={() => onChange(value === part ? undefined : part)}
            className={`min-h-12 rounded border-2 border-ink px-3 font-semibold ${value === part ? "bg-ink text-on-ink" : "bg-paper"}`}
          >
            {PART_WORDS[part]}
          </button>
        ))}
      </div>
    </fieldset>
  );
}
