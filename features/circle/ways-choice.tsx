"use client";

import type { Ways } from "@/core/circle";

const CHOICES = [
  ["both", "both ways in one session"],
  ["turn", "one way a day in turn, until the walk at the end is easy"],
] as const;

/** The two schools of sharing circle work between the sides. */
export function WaysChoice({ ways, easy, change }: { ways: Ways; easy: boolean; change: (ways: Ways) => void }) {
  return (
    <div className="flex flex-wrap gap-x-6 gap-y-1">
      {CHOICES.map(([value, label]) => (
        <label key={value} className="flex min-h-11 items-center gap-2">
          <input type="radio" name="ways" className="size-5 accent-(--tarn)" checked={ways === value} onChange={() => change(value)} />
          {label}
        </label>
      ))}
      {easy && ways === "turn" && (
        <p className="basis-full text-sm">
          The walk at the end was easy the last time to each hand: both ways may come into one session now.
        </p>
      )}
    </div>
  );
}
