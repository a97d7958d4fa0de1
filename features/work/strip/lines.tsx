"use client";

import { type ReactNode, type RefObject, useEffect, useState } from "react";

/** How a row of small pads lies in its box: how many lines it takes there, and which is shown, from 0. */
export interface LinesSeen {
  readonly lines: number;
  readonly at: number;
}

/** Where a box with one line in sight stands: its content's height over its own, and how far it is scrolled. */
export function linesSeen(box: { readonly scrollHeight: number; readonly clientHeight: number; readonly scrollTop: number }): LinesSeen {
  if (box.clientHeight <= 0) return { lines: 1, at: 0 };
  // The gap between lines makes the content a little more than whole lines.
  const lines = Math.max(1, Math.round(box.scrollHeight / box.clientHeight));
  return { lines, at: Math.min(lines - 1, Math.round(box.scrollTop / box.clientHeight)) };
}

/** A row of small pads: on a phone one whole line of it is in sight, and none is cut at the edge. */
export function Lines({
  box,
  onSeen,
  children,
}: {
  box: RefObject<HTMLDivElement | null>;
  onSeen: (seen: LinesSeen) => void;
  children: ReactNode;
}) {
  const [content, setContent] = useState<HTMLDivElement | null>(null);
  useEffect(() => {
    const element = box.current;
    if (element === null || content === null) return;
    const look = () => onSeen(linesSeen(element));
    const observer = new ResizeObserver(look);
    observer.observe(content);
    observer.observe(element);
    element.addEventListener("scroll", look);
    return () => {
      observer.disconnect();
      element.removeEventListener("scroll", look);
    };
  }, [box, content, onSeen]);
  return (
    <div ref={box} className="pen-line">
      <div ref={setContent}>{children}</div>
    </div>
  );
}
