"use client";

import type { Advice } from "@/core/session";

/** What taking a word does, in words; null where there is nothing to do. */
function takeWords({ word, rung }: Advice): string | null {
  switch (word) {
    case "Rest":
      return "Take a break";
    case "Finish":
      return rung === undefined ? "Finish" : `To rung ${rung}`;
    case "Split":
      return "Put it in";
    case "Ease":
    case "Raise":
      return rung === undefined ? null : `To rung ${rung}`;
    case "Change side":
      return "Other side";
    default:
      return null;
  }
}

/** The word with its reason. It never acts by itself; taking it is one press. */
export function WordPanel({ advice, onTake }: { advice: Advice; onTake: () => void }) {
  const take = takeWords(advice);
  return (
    <div className="flex items-center gap-3">
      <p aria-live="polite" className="flex min-w-0 grow items-center gap-3">
        <strong
          className={`max-w-28 shrink-0 font-head leading-[0.95] font-extrabold text-tarn lg:max-w-none ${advice.word.length > 7 ? "text-[1.5rem]" : "text-[2.2rem]"} lg:text-[3rem]`}
        >
          {advice.word}
        </strong>
        <span className="text-[0.92rem] leading-snug text-soft lg:text-lg">{advice.reason}</span>
      </p>
      {take !== null && (
        <button type="button" onClick={onTake} className="act min-h-12 max-w-[8.5rem] shrink-0 leading-tight" aria-keyshortcuts="w">
          {take}
        </button>
      )}
    </div>
  );
}
