"use client";

import { SOFT_GRADE } from "@/core/record";

/** How the horse was on the last answer, where it can hurt: soft, or not. Not said counts for no rule over days. */
export function CalmRow({ grade, onCalm }: { grade: number | null; onCalm: (soft: boolean) => void }) {
  const said = grade === null ? null : grade >= SOFT_GRADE;
  const look = (on: boolean, tone: string) =>
    `min-h-11 rounded-lg border-2 px-2 font-semibold ${tone} ${on ? "bg-ink text-on-ink border-ink!" : "bg-paper"}`;
  return (
    <fieldset className="grid grid-cols-2 gap-1.5" aria-label="How the horse was on the last one">
      <button type="button" aria-pressed={said === true} onClick={() => onCalm(true)} className={look(said === true, "border-sage")}>
        soft
      </button>
      <button type="button" aria-pressed={said === false} onClick={() => onCalm(false)} className={look(said === false, "border-brick")}>
        not soft
      </button>
    </fieldset>
  );
}
