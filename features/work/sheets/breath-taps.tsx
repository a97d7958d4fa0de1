"use client";

import { useRef, useState } from "react";
import { breathingRate } from "@/core/welfare";

/** More says nothing more, and an event has its limits. */
const MOST_TAPS = 300;

/** Breathing by tapping: one tap a breath, looking at the flank. */
export function BreathTaps({ onRate }: { onRate: (tapsMs: readonly number[]) => void }) {
  const [taps, setTaps] = useState<readonly number[]>([]);
  const started = useRef(0);
  const rate = breathingRate(taps);
  const tap = () => {
    if (taps.length >= MOST_TAPS) return;
    const now = performance.now();
    if (taps.length === 0) started.current = now;
    setTaps([...taps, Math.round(now - started.current)]);
  };
  return (
    <div>
      <div className="grid grid-cols-[1fr_auto] gap-2">
        <button
          type="button"
          // On the press, so that the count is not late by the lift.
          onPointerDown={tap}
          onKeyDown={(event) => {
            if ((event.key === " " || event.key === "Enter") && !event.repeat) tap();
          }}
          className="min-h-[84px] touch-none rounded-lg border-[2.5px] border-tarn bg-paper font-head text-lg font-semibold select-none"
        >
          tap each breath
          <span className="figures block text-soft">{taps.length} taps</span>
        </button>
        <button
          type="button"
          disabled={rate === null}
          onClick={() => {
            onRate(taps);
            setTaps([]);
          }}
          className="act min-w-28 leading-tight"
        >
          Take it
        </button>
      </div>
      <p className="figures mt-1 text-sm" role="status">
        {rate === null
          ? "Look at the flank; ten breaths or more say most."
          : rate.interval === null
            ? `${Math.round(rate.perMinute)} a minute; too few breaths to tell how well that is known.`
            : `${Math.round(rate.perMinute)} a minute, could be anywhere from ${Math.round(rate.interval[0])} to ${Math.round(rate.interval[1])}.`}
      </p>
    </div>
  );
}
