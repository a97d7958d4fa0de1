"use client";

import type { Advice } from "@/core/word";

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
  // With a button beside it the reason stands under the word: less height on a narrow screen.
  return (
    <div
      className={`grid shrink-0 items-center gap-x-3 ${take === null ? "grid-cols-[auto_minmax(0,1fr)]" : "grid-cols-[minmax(0,1fr)_auto]"}`}
      data-testid="word"
    >
      <p aria-live="polite" className="contents">
        <strong className="font-head text-[1.6rem] leading-none font-extrabold whitespace-nowrap text-tarn desk:text-[3rem]">
          {advice.word}
        </strong>
        <span
          className={`line-clamp-3 text-[0.85rem] leading-tight text-soft desk:line-clamp-none desk:text-lg ${take === null ? "" : "row-start-2"}`}
        >
          {advice.reason}
        </span>
      </p>
      {take !== null && (
        <button
          type="button"
          onClick={onTake}
          className="act col-start-2 row-span-2 row-start-1 min-h-12 max-w-32 px-3! leading-tight"
          aria-keyshortcuts="w"
        >
          {take}
        </button>
      )}
    </div>
  );
}
