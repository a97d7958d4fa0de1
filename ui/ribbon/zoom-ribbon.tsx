"use client";

import { useDrag } from "@use-gesture/react";
import { ChevronLeft, ChevronRight, Maximize2, ZoomIn, ZoomOut } from "lucide-react";
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import type { RibbonFacts } from "@/core/record";
import { counted } from "@/core/words";
import { Ribbon } from "./ribbon";

const LEAST_WINDOW_MS = 2000;
/** A span drawn shorter than this, in the drawing's own units, is a slip. */
const LEAST_DRAG = 12;

function clockWords(ms: number): string {
  const seconds = Math.max(0, Math.round(ms / 1000));
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
}

/** The trial at a moment, or the nearest one within reach of it; null where there is none. */
function nearest({ trials }: RibbonFacts, ms: number, reachMs: number): number | null {
  let best: number | null = null;
  let least = reachMs;
  for (const { number, askMs, endMs } of trials) {
    const off = ms < askMs ? askMs - ms : ms > endMs ? ms - endMs : 0;
    if (off <= least) {
      least = off;
      best = number;
    }
  }
  return best;
}

/** The ribbon with zoom: by buttons, by keys, or by drawing a span with the pointer. */
export function ZoomRibbon({
  record,
  endMs,
  height = 190,
  onTrial,
}: {
  record: RibbonFacts;
  endMs: number;
  height?: number;
  /** A trial was pressed: its number. */
  onTrial?: (number: number) => void;
}) {
  // A little air on both sides, so that the first and last ring are whole.
  const air = Math.max(1000, endMs * 0.012);
  const whole = { fromMs: -air, toMs: endMs + air };
  const [span, setSpan] = useState(whole);
  const [width, setWidth] = useState(1180);
  const [drag, setDrag] = useState<{ from: number; to: number } | null>(null);
  const box = useRef<HTMLElement>(null);
  useEffect(() => {
    const element = box.current;
    if (element === null) return;
    const observer = new ResizeObserver(() => setWidth(Math.max(300, element.clientWidth)));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const show = (fromMs: number, toMs: number) => {
    const length = Math.min(whole.toMs - whole.fromMs, Math.max(LEAST_WINDOW_MS, toMs - fromMs));
    const from = Math.min(Math.max(whole.fromMs, fromMs), whole.toMs - length);
    setSpan({ fromMs: from, toMs: from + length });
  };
  const length = span.toMs - span.fromMs;
  const middle = (span.fromMs + span.toMs) / 2;
  const scale = (factor: number) => show(middle - (length * factor) / 2, middle + (length * factor) / 2);
  const move = (share: number) => show(span.fromMs + length * share, span.toMs + length * share);
  const onKey = (event: KeyboardEvent) => {
    const act = {
      "+": () => scale(0.5),
      "=": () => scale(0.5),
      "-": () => scale(2),
      ArrowLeft: () => move(-0.25),
      ArrowRight: () => move(0.25),
      "0": () => show(whole.fromMs, whole.toMs),
    }[event.key];
    if (act === undefined) return;
    event.preventDefault();
    act();
  };
  const msAt = (x: number) => span.fromMs + (x / width) * length;
  const dragged = useDrag(
    ({ initial: [startX], xy: [nowX], last, canceled, tap, currentTarget }) => {
      const rect = (currentTarget as Element).getBoundingClientRect();
      const at = (clientX: number) => ((Math.min(rect.right, Math.max(rect.left, clientX)) - rect.left) / rect.width) * width;
      const [from, to] = [at(startX), at(nowX)];
      if (tap && onTrial !== undefined) {
        const found = nearest(record, msAt(to), (LEAST_DRAG / width) * length);
        if (found !== null) onTrial(found);
      }
      setDrag(last ? null : { from, to });
      if (last && !canceled && Math.abs(to - from) > LEAST_DRAG) show(msAt(Math.min(from, to)), msAt(Math.max(from, to)));
    },
    { filterTaps: true, axis: "x" },
  );
  const tool = "grid size-9 place-items-center rounded hover:bg-paper disabled:opacity-40";
  const zoomed = length < whole.toMs - whole.fromMs - 1;
  return (
    <section aria-label="Ribbon of the session" ref={box}>
      {/* biome-ignore lint/a11y/useSemanticElements: a drawing that takes keys and drags is no fieldset */}
      <div
        role="group"
        aria-label="Ribbon, plus and minus zoom, arrows move, 0 shows all"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: keys zoom and move the ribbon
        tabIndex={0}
        onKeyDown={onKey}
        {...dragged()}
        className="relative touch-pan-y cursor-crosshair select-none"
      >
        <Ribbon
          record={record}
          view={{ fromMs: span.fromMs, toMs: span.toMs, width, height }}
          label={`${counted(record.trials.length, "trial")} over ${clockWords(endMs)} minutes. The table below holds the same.`}
        />
        {drag !== null && (
          <div
            className="pointer-events-none absolute inset-y-0 border-x-2 border-tarn bg-tarn/15"
            style={{ left: `${(Math.min(drag.from, drag.to) / width) * 100}%`, width: `${(Math.abs(drag.to - drag.from) / width) * 100}%` }}
          />
        )}
      </div>
      <div className="figures flex items-center gap-1 text-sm text-soft">
        <span>{clockWords(span.fromMs)}</span>
        <span className="grow" />
        <button type="button" className={tool} onClick={() => move(-0.5)} disabled={!zoomed} aria-label="Earlier">
          <ChevronLeft size={18} />
        </button>
        <button type="button" className={tool} onClick={() => scale(0.5)} disabled={length <= LEAST_WINDOW_MS} aria-label="Closer">
          <ZoomIn size={18} />
        </button>
        <button type="button" className={tool} onClick={() => scale(2)} disabled={!zoomed} aria-label="Wider">
          <ZoomOut size={18} />
        </button>
        <button type="button" className={tool} onClick={() => show(whole.fromMs, whole.toMs)} disabled={!zoomed} aria-label="Whole session">
          <Maximize2 size={16} />
        </button>
        <button type="button" className={tool} onClick={() => move(0.5)} disabled={!zoomed} aria-label="Later">
          <ChevronRight size={18} />
        </button>
        <span className="grow" />
        <span>{clockWords(Math.min(span.toMs, endMs))}</span>
      </div>
    </section>
  );
}
