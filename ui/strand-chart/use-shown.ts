"use client";

import { type RefObject, useCallback, useEffect, useRef, useState } from "react";
import { COLUMN, LABEL, type Shown } from "./geometry";

/** Rungs drawn beyond either edge of what is seen. */
const BEYOND = 4;
/** As many as the widest page shows at once, and more: a ladder no longer than this is always drawn whole. */
const FEW = 18;

/**
 * Which rungs are drawn: those in sight and a few beyond, so that a long
 * ladder costs no more than a short one. Brings the chosen rung into sight.
 */
export function useShown(
  scroller: RefObject<HTMLDivElement | null>,
  rungs: number,
  selected: number,
): { shown: Shown; onScroll: () => void } {
  const [from, setFrom] = useState(0);
  // Kept here so that moving along the ladder never has to ask the page for its layout.
  const view = useRef({ left: 0, width: 0 });
  useEffect(() => {
    const element = scroller.current;
    if (element === null) return;
    const watch = new ResizeObserver(([entry]) => {
      if (entry !== undefined) view.current.width = entry.contentRect.width;
    });
    watch.observe(element);
    return () => watch.disconnect();
  }, [scroller]);
  const onScroll = useCallback(() => {
    const element = scroller.current;
    if (element === null) return;
    view.current.left = element.scrollLeft;
    // By steps of a few columns, so that scrolling does not draw at every pixel.
    setFrom(Math.max(0, Math.floor((element.scrollLeft / COLUMN - BEYOND) / BEYOND) * BEYOND));
  }, [scroller]);
  useEffect(() => {
    const element = scroller.current;
    const { left: seenFrom, width } = view.current;
    if (element === null || width === 0 || width >= LABEL + rungs * COLUMN) return undefined;
    const left = (selected - 1) * COLUMN;
    const right = LABEL + selected * COLUMN;
    // Far enough that the next few rungs are in sight too.
    const goal = seenFrom > left ? right - width + COLUMN : seenFrom + width < right ? left - COLUMN : null;
    if (goal === null) return undefined;
    // Once the choice itself is on the screen: moving the whole chart is a frame of its own.
    let timer: ReturnType<typeof setTimeout> | undefined;
    const frame = requestAnimationFrame(() => {
      timer = setTimeout(() => {
        element.scrollLeft = goal;
      });
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  }, [scroller, selected, rungs]);
  const first = rungs <= FEW ? 0 : Math.min(from, rungs - 1);
  const last = rungs <= FEW ? rungs - 1 : Math.min(rungs - 1, first + FEW + BEYOND);
  const [shown, setShown] = useState<Shown>({ first, last });
  if (shown.first !== first || shown.last !== last) setShown({ first, last });
  return { shown: shown.last >= rungs ? { first, last } : shown, onScroll };
}
