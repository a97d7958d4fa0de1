"use client";

import { type KeyboardEvent, memo, type PointerEvent, useRef } from "react";
import { difficulty, type Strand, type StrandValue } from "@/core/strands";
import { COLUMN, cordY, HEAD, LABEL, ROW, valueWords } from "./geometry";

/** What the chart tells when a cord is taken hold of. A drag is a gesture with a name: its notches count from where it began. */
export interface CordEditing {
  readonly onSelect: (rung: number) => void;
  readonly onStep: (strandId: string, rung: number, notches: number, gesture: string | null) => void;
  readonly onFocusStrand: (strandId: string) => void;
}

/** How far a finger goes for one notch. */
const PIXELS_PER_NOTCH = 15;

function placeOf(strand: Strand, value: StrandValue | undefined): number {
  if (typeof value === "number") return value;
  try {
    return difficulty(strand, value ?? "");
  } catch (thrown) {
    // A value being typed may not be of its strand yet.
    if (!(thrown instanceof RangeError)) throw thrown;
    return 0;
  }
}

let gestures = 0;

/** A strand's handle: along the cord chooses the rung, up is harder and down is easier. */
export const CordHandle = memo(function CordHandle({
  strand,
  value,
  height,
  row,
  rungs,
  selected,
  editing,
}: {
  strand: Strand;
  value: StrandValue | undefined;
  /** Of the cord on the chosen rung, from 0 to 1. */
  height: number;
  row: number;
  rungs: number;
  selected: number;
  editing: CordEditing;
}) {
  const drag = useRef<{ startY: number; notches: number; rung: number; name: string } | null>(null);
  const words = `rung ${selected}: ${valueWords(value)}${strand.unit === "" || typeof value !== "number" ? "" : ` ${strand.unit}`}`;
  const onKey = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const along = { ArrowRight: selected + 1, ArrowLeft: selected - 1, Home: 1, End: rungs }[event.key];
    const harder = { ArrowUp: 1, ArrowDown: -1, PageUp: 4, PageDown: -4 }[event.key];
    if (along === undefined && harder === undefined) return;
    event.preventDefault();
    if (along !== undefined) editing.onSelect(Math.min(rungs, Math.max(1, along)));
    if (harder !== undefined) editing.onStep(strand.id, selected, harder, null);
  };
  const down = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0) return;
    const along = event.clientX - event.currentTarget.getBoundingClientRect().left;
    const rung = Math.min(rungs, Math.max(1, Math.floor(along / COLUMN) + 1));
    event.currentTarget.setPointerCapture(event.pointerId);
    gestures++;
    drag.current = { startY: event.clientY, notches: 0, rung, name: `drag-${gestures}` };
    editing.onSelect(rung);
    editing.onFocusStrand(strand.id);
  };
  const move = (event: PointerEvent<HTMLDivElement>) => {
    const now = drag.current;
    if (now === null) return;
    const notches = Math.round((now.startY - event.clientY) / PIXELS_PER_NOTCH);
    if (notches === now.notches) return;
    editing.onStep(strand.id, now.rung, notches, now.name);
    now.notches = notches;
  };
  const up = () => {
    drag.current = null;
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={strand.name}
      aria-orientation="vertical"
      aria-valuenow={placeOf(strand, value)}
      aria-valuetext={words}
      onKeyDown={onKey}
      onFocus={() => editing.onFocusStrand(strand.id)}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={up}
      className="absolute touch-pan-x cursor-ns-resize rounded-sm -outline-offset-2!"
      style={{ left: LABEL, top: HEAD + row * ROW + 6, width: rungs * COLUMN, height: ROW - 8 }}
    >
      <span
        aria-hidden="true"
        className="absolute -top-2.5 -left-2.5 grid size-5 place-items-center rounded-full border-[3px] border-tarn bg-ground"
        style={{ transform: `translate(${(selected - 0.22) * COLUMN}px, ${cordY(height) - 6}px)` }}
      >
        <span className="block size-1.5 rounded-full bg-tarn" />
      </span>
    </div>
  );
});
