"use client";

import { type KeyboardEvent, memo, useEffect, useRef } from "react";
import { COLUMN, HEAD, LABEL } from "./geometry";

const SPLIT_MARK = "M10 17 V9 L3 2 M10 9 L17 2";

interface RungHeadProps {
  readonly number: number;
  readonly selected: boolean;
  readonly barred: boolean;
  /** Whether the step to it has a fault, and whether that is kept. */
  readonly fault: "none" | "open" | "kept";
  /** What stands under its number where two versions are compared. */
  readonly compared: string | null;
  readonly words: string;
  /** How far down it can be pressed. */
  readonly height: number;
  readonly onSelect: (rung: number) => void;
}

const RungHead = memo(function RungHead({ number, selected, barred, fault, compared, words, height, onSelect }: RungHeadProps) {
  return (
    // biome-ignore lint/a11y/useSemanticElements: the whole column is the target
    <button
      type="button"
      role="radio"
      aria-checked={selected}
      aria-label={words}
      tabIndex={selected ? 0 : -1}
      onClick={() => onSelect(number)}
      className="absolute top-0 flex flex-col items-center rounded-sm pt-1 -outline-offset-4!"
      style={{ left: LABEL + (number - 1) * COLUMN, width: COLUMN, height }}
    >
      <span
        className={`font-head text-xl ${selected ? "font-bold text-tarn" : ""} ${barred ? "text-brick! line-through decoration-2" : ""}`}
      >
        {number}
      </span>
      {compared !== null && <span className="text-xs leading-none text-tarn">{compared}</span>}
      {fault !== "none" && (
        <svg viewBox="0 0 20 18" width="18" height="16" aria-hidden="true">
          <path
            d={SPLIT_MARK}
            fill="none"
            stroke="var(--ochre)"
            strokeWidth="3"
            strokeLinecap="round"
            strokeDasharray={fault === "open" ? undefined : "2 5"}
          />
        </svg>
      )}
    </button>
  );
});

/** What a rung's number shows and says. */
export type RungHeadFacts = Omit<RungHeadProps, "selected" | "height" | "onSelect">;

/** The rungs' numbers: one of them is chosen. Each is drawn again only where it changed. */
export const RungHeads = memo(function RungHeads({
  heads,
  selected,
  height = HEAD + 4,
  onSelect,
}: {
  heads: readonly RungHeadFacts[];
  selected: number;
  height?: number;
  onSelect: (rung: number) => void;
}) {
  const group = useRef<HTMLDivElement>(null);
  // Focus goes along with the choice where it already is on a rung.
  useEffect(() => {
    if (!group.current?.contains(document.activeElement)) return;
    const chosen = group.current.children[selected - 1];
    if (chosen instanceof HTMLElement) chosen.focus();
  }, [selected]);
  const onKey = (event: KeyboardEvent) => {
    const step = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
    if (step === 0) return;
    event.preventDefault();
    onSelect(Math.min(heads.length, Math.max(1, selected + step)));
  };
  return (
    <div ref={group} role="radiogroup" aria-label="Rung" onKeyDown={onKey} className="absolute inset-x-0 top-0">
      {heads.map((head) => (
        <RungHead key={head.number} {...head} selected={head.number === selected} height={height} onSelect={onSelect} />
      ))}
    </div>
  );
});
