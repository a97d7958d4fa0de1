"use client";

import type { Advice } from "@/core/session";

const TAKE: Record<Advice["word"], (rung: number) => string | null> = {
  Rest: () => "Take a break",
  Finish: () => "Finish",
  Ease: (rung) => (rung > 1 ? `To rung ${rung - 1}` : null),
  Raise: (rung) => `To rung ${rung + 1}`,
  Stay: () => null,
};

/** The word with its reason. It never acts by itself; taking it is one press. */
export function WordPanel({ advice, rung, onTake }: { advice: Advice; rung: number; onTake: () => void }) {
  const take = TAKE[advice.word](rung);
  return (
    <div className="flex items-center gap-3.5">
      <p aria-live="polite" className="flex min-w-0 grow items-center gap-3.5">
        <strong className="font-head text-[2.3rem] leading-none font-extrabold text-tarn">{advice.word}</strong>
        <span className="text-[0.95rem] leading-snug text-soft">{advice.reason}</span>
      </p>
      {take !== null && (
        <button type="button" onClick={onTake} className="act min-h-12 shrink-0" aria-keyshortcuts="w">
          {take}
        </button>
      )}
    </div>
  );
}
