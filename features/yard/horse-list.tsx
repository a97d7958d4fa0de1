"use client";

import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { HorseLine } from "./horse-line";
import type { YardLine } from "./yard";

/** Up to here every horse is drawn: searching in the page and printing find all of them. */
const ALL_DRAWN = 30;
/** How many are drawn before the list knows how high its window is: more than a screen shows. */
const AT_FIRST = 7;
const ABOUT_HIGH = 132;

/** A yard with many horses: those in sight are drawn, and a few beyond. */
function LongList({ lines }: { lines: readonly YardLine[] }) {
  const list = useRef<HTMLUListElement>(null);
  const [top, setTop] = useState<number | null>(null);
  useLayoutEffect(() => setTop(list.current?.offsetTop ?? 0), []);
  const rows = useWindowVirtualizer({
    count: lines.length,
    estimateSize: () => ABOUT_HIGH,
    overscan: 2,
    scrollMargin: top ?? 0,
    initialRect: { width: 1280, height: AT_FIRST * ABOUT_HIGH },
    getItemKey: (index) => lines[index]?.id ?? index,
  });
  return (
    <ul ref={list} className="relative mt-6 border-b-2 border-hair" style={{ height: rows.getTotalSize() }}>
      {rows.getVirtualItems().map(({ index, key, start }) => {
        const line = lines[index];
        return line === undefined ? null : (
          <li
            key={key}
            ref={rows.measureElement}
            data-index={index}
            aria-setsize={lines.length}
            aria-posinset={index + 1}
            className="absolute inset-x-0 top-0"
            style={{ transform: `translateY(${start - (top ?? 0)}px)` }}
          >
            <HorseLine line={line} />
          </li>
        );
      })}
    </ul>
  );
}

/** The horses in work, a line each. */
export function HorseList({ lines }: { lines: readonly YardLine[] }) {
  // The server draws the first ribbons alone: the others follow at once, and the page is light.
  const [drawn, setDrawn] = useState(AT_FIRST);
  useEffect(() => setDrawn(Number.POSITIVE_INFINITY), []);
  if (lines.length > ALL_DRAWN) return <LongList lines={lines} />;
  return (
    <ul className="mt-6 border-b-2 border-hair">
      {lines.map((line, i) => (
        <li key={line.id}>
          <HorseLine line={line} drawn={i < drawn} />
        </li>
      ))}
    </ul>
  );
}
