"use client";

import { batteryPlace, FIRST_LOOK_STEPS, FIRST_LOOK_TRIALS } from "@/core/know";
import type { SessionRecord } from "@/core/record";

const SIDE_WORD = { L: ", left", R: ", right" } as const;

/** Where the battery stands, what to mind, and the step to go to next. It never goes on by itself. */
export function BatteryPanel({ record, limit, onNext }: { record: SessionRecord; limit: string | null; onNext: () => void }) {
  const { at, next, done } = batteryPlace(record);
  const here = at === null ? undefined : FIRST_LOOK_STEPS[at];
  const then = next === null ? undefined : FIRST_LOOK_STEPS[next];
  return (
    <div className="flex items-center gap-3.5">
      <p aria-live="polite" className="min-w-0 grow text-[0.95rem] leading-snug text-soft">
        <strong className="block font-head text-lg font-bold text-tarn">
          {done} of {FIRST_LOOK_STEPS.length} looked at
        </strong>
        {limit !== null && <span className="block font-semibold text-brick">{limit} Finish here; what was seen is kept.</span>}
        {FIRST_LOOK_TRIALS.least} to {FIRST_LOOK_TRIALS.most} asks each.
        {here?.item.caution != null && <span className="font-semibold text-brick"> {here.item.caution}</span>}
      </p>
      <button type="button" onClick={onNext} className="act min-h-12 max-w-[46%] shrink-0 text-left leading-tight" aria-keyshortcuts="w">
        {then === undefined ? "Finish" : `Next: ${then.item.name}${then.side === null ? "" : SIDE_WORD[then.side]}`}
      </button>
    </div>
  );
}
