"use client";

import { useEffect } from "react";

/**
 * When a panel gives way to the next one, the focus would fall back to the top
 * of the page: it goes to the next sensible control instead. Whoever has the
 * focus elsewhere keeps it.
 */
export function useNextFocus(stage: string): void {
  useEffect(() => {
    if (stage === "") return;
    const look = () => {
      if (document.activeElement !== null && document.activeElement !== document.body) return true;
      const next = document.querySelector<HTMLElement>("[data-next]");
      next?.focus({ preventScroll: true });
      return next !== null;
    };
    if (look()) return;
    // The next panel may still be on its way.
    const timer = setTimeout(look, 300);
    return () => clearTimeout(timer);
  }, [stage]);
}
