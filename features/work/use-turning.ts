"use client";

import { type PointerEvent, useRef } from "react";

/** How far a finger goes sideways for a turn of the page, in CSS pixels. */
const SWIPE_PIXELS = 60;

/**
 * A swipe sideways turns to the other page of pads. One that begins on a pad
 * is that pad's own press, since a pad acts at once; it may begin anywhere else.
 */
export function useTurning(turn: () => void) {
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
      if (across >= SWIPE_PIXELS && across > 2 * Math.abs(event.clientY - began.y)) turn();
    },
  };
}
