"use client";

import type { Advice } from "@/core/advice";

/** What taking a word does, in words; null where there is nothing to do. */
function takeWords({ word, rung }: Advice): string | null {
  switch (word) {
    case "Stop":
      return rung === undefined ? "End here" : `To rung ${rung}`;
    case "Break":
      return "Take a break";
    case "Finish":
      return rung === undefined ? "Finish" : `To rung ${rung}`;
    case "Add a step":
      return "Put it in";
    case "Go back":
    case "Up":
      return rung === undefined ? null : `To rung ${rung}`;
    case "Change side":
      return "Other side";
    default:
      return null;
  }
}

/** Stop, with what to do now: the large button ends it. */
function StopAdvice({ advice, take, onTake }: { advice: Advice; take: string; onTake: () => void }) {
  return (
    <div className="grid shrink-0 gap-1 border-4 border-brick p-2" data-testid="word" role="alert">
      <p className="text-[0.85rem] leading-tight desk:text-lg">
        <strong className="float-left mr-2 font-head text-[1.6rem] leading-none font-extrabold text-brick desk:text-[3rem]">Stop</strong>
        {advice.reason}
      </p>
      <button type="button" onClick={onTake} className="act min-h-14 text-lg" aria-keyshortcuts="w">
        {take}
      </button>
    </div>
  );
}

/** The word with its reason. It never acts by itself; taking it is one press. */
export function AdvicePanel({ advice, onTake }: { advice: Advice; onTake: () => void }) {
  const take = takeWords(advice);
  if (advice.word === "Stop") return <StopAdvice advice={advice} take={take ?? "End here"} onTake={onTake} />;
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
