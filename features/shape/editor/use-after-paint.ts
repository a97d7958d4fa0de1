"use client";

import { startTransition, useEffect, useState } from "react";
import { afterPaint } from "@/ui/after-paint";

/** A value as it was on the last frame: what hangs on it is drawn once the change itself is on the screen. */
export function useAfterPaint<T>(value: T): T {
  const [seen, setSeen] = useState(value);
  useEffect(() => {
    let current = true;
    afterPaint(() => {
      if (current) startTransition(() => setSeen(value));
    });
    return () => {
      current = false;
    };
  }, [value]);
  return seen;
}
