"use client";

import { useEffect, useRef, useState } from "react";
import type { SessionRecord } from "@/core/record";
import { Ribbon } from "@/ui/ribbon";

/** How much of the session the live ribbon shows. */
const WINDOW_MS = 75_000;
const MOVE_EVERY_MS = 500;
const PHONE_HEIGHT = 66;
const LAPTOP_HEIGHT = 250;

/** Only what lies in the window is laid out, so a long session draws as fast as a short one. */
function recentPart(record: SessionRecord, fromMs: number): SessionRecord {
  return {
    ...record,
    trials: record.trials.filter((t) => t.endMs >= fromMs),
    facts: record.facts.filter((f) => f.ms >= fromMs || f.type === "depart" || f.type === "return"),
  };
}

/** The last minute or so, moving along. */
export function LiveRibbon({ record, nowMs }: { record: SessionRecord; nowMs: () => number | null }) {
  const box = useRef<HTMLDivElement>(null);
  const [{ width, height }, setSize] = useState({ width: 390, height: PHONE_HEIGHT });
  const [, move] = useState(0);
  useEffect(() => {
    const element = box.current;
    if (element === null) return;
    const observer = new ResizeObserver(() =>
      setSize({ width: Math.max(280, element.clientWidth), height: window.innerWidth >= 1024 ? LAPTOP_HEIGHT : PHONE_HEIGHT }),
    );
    observer.observe(element);
    const timer = setInterval(() => !document.hidden && move((n) => n + 1), MOVE_EVERY_MS);
    return () => {
      observer.disconnect();
      clearInterval(timer);
    };
  }, []);
  const now = Math.max(nowMs() ?? 0, record.lastMs);
  const toMs = Math.max(WINDOW_MS, now + 2000);
  const fromMs = toMs - WINDOW_MS;
  return (
    <div ref={box} className="pen-ribbon shrink overflow-hidden contain-strict" style={{ height }}>
      <Ribbon
        record={recentPart(record, fromMs - 5000)}
        view={{ fromMs, toMs, width, height, presentMs: now }}
        label="The last minute"
        radius={5.5}
      />
    </div>
  );
}
