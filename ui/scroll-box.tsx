import type { ReactNode } from "react";

/** A table that may be wider than the screen: it scrolls by itself, by keyboard too. */
export function ScrollBox({ label, className = "", children }: { label: string; className?: string; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reachable by keyboard
    <section aria-label={`${label}, scrolls sideways`} tabIndex={0} className={`overflow-x-auto ${className}`}>
      {children}
    </section>
  );
}
