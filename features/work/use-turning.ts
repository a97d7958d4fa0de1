"use client";

import { type PointerEvent, useRef } from "react";

/** How far a finger goes sideways for a turn of the page, in CSS pixels. */
const SWIPE_PIXELS = 60;

/**
 * A swipe sideways turns to the other page of pads. One that begins on a pad
 * is that pad's own press, since a pad acts at once; it may begin anywhere else.
 * @param alsoUp whether a swipe up turns as well.
 */
export function useTurning(turn: () => void, alsoUp: boolean) {
  const from = useRef<{ x: number; y: number } | null>(null);
  return {
    onPointerDown: (event: PointerEvent) => {
      const onPad = event.target instanceof Element && event.target.closest("[data-pad], input, select") !== null;
      from.current = onPad ? null : { x: event.clientX, y: event.clientY };
    },
    onPointerUp: (event: PointerEvent) => {
      const began = from.current;
      from.current = null;
      if (began === null) return;
      const across = Math.abs(event.clientX - began.x);
      const up = began.y - event.clientY;
      if (across >= SWIPE_PIXELS && across > 2 * Math.abs(up)) turn();
      else if (alsoUp && up >= SWIPE_PIXELS && up > 2 * across) turn();
    },
  };
}
