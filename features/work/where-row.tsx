"use client";

import { whereNow } from "@/core/session";
import type { RecorderState } from "./use-recorder";

const chip = (on: boolean) =>
  `min-h-14 shrink-0 touch-manipulation rounded-lg border-2 px-2.5 text-[0.95rem] font-semibold select-none ${on ? "border-ink bg-ink text-on-ink" : "border-ink bg-paper"}`;

/** Where the horse is: its zone, and whether it has left. One tap each; they slide sideways on a narrow screen. */
export function WhereRow({ zones, state, touch }: { zones: readonly string[]; state: RecorderState; touch: boolean }) {
  const { act } = state;
  const where = whereNow(state.session.record);
  return (
    <fieldset className="mb-2 flex min-w-0 gap-1.5 overflow-x-auto pb-0.5" aria-label="Where the horse is">
      <button type="button" aria-pressed={where.away} onClick={act.away} className={`${chip(where.away)} border-dashed`}>
        {where.away ? "is back" : "leaves"}
      </button>
      {zones.map((zone) => (
        <button
          key={zone}
          type="button"
          aria-pressed={where.zone === zone}
          onClick={() => act.zone(zone)}
          className={chip(where.zone === zone)}
        >
          {zone}
        </button>
      ))}
      {touch && (
        <button type="button" onClick={() => state.setSheet("touch")} className={chip(false)}>
          touch
        </button>
      )}
    </fieldset>
  );
}
