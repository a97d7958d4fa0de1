"use client";

import { RotateCw } from "lucide-react";
import { Suspense, useCallback, useEffect, useRef, useState } from "react";
import { Lines, type LinesSeen } from "./lines";
import { useMomentRows } from "./moment-rows";

const NO_LINES: LinesSeen = { lines: 1, at: 0 };

/**
 * The row above the pads holds what the moment asks for: the name of a sign,
 * what ended a stay, a value, a grade, or where the horse is. What is not on
 * top is one press away.
 */
export function MomentStrip({
  wantedOnly = false,
}: {
  /** Only what has to be said now, and nothing where nothing has; what goes on all the time is left to the full face. */
  wantedOnly?: boolean;
}) {
  const { rows: all, short } = useMomentRows();
  const rows = wantedOnly ? all.filter(({ key, wanted }) => wanted && key !== "free") : all;
  const [turned, setTurned] = useState(0);
  const top = rows[0]?.key ?? "";
  // A fresh need comes back to the top of the turning.
  useEffect(() => {
    if (top !== "") setTurned(0);
  }, [top]);
  const shown = rows[turned % rows.length];
  const box = useRef<HTMLDivElement>(null);
  const [seen, setSeen] = useState(NO_LINES);
  const onSeen = useCallback((next: LinesSeen) => setSeen((had) => (had.lines === next.lines && had.at === next.at ? had : next)), []);
  const key = shown?.key;
  useEffect(() => {
    if (key !== undefined) box.current?.scrollTo(0, 0);
  }, [key]);
  /** The next line of this row, then the next row. */
  const turn = () => {
    const element = box.current;
    if (element !== null && seen.at < seen.lines - 1) {
      // Lines are as far apart as the pads in them: the first below what is in sight.
      const edge = element.getBoundingClientRect().bottom - 1;
      const below = [...element.querySelectorAll<HTMLElement>("button, select, p")].find((one) => one.getBoundingClientRect().top > edge);
      if (below !== undefined) {
        element.scrollTop += below.getBoundingClientRect().top - element.getBoundingClientRect().top;
        return;
      }
    }
    element?.scrollTo(0, 0);
    setTurned(turned + 1);
  };
  if (shown === undefined) return <div className="h-[calc(var(--line)+1rem)]" />;
  return (
    <div className="min-w-0">
      <div className="flex min-h-4 items-baseline gap-2 text-[0.8rem] leading-tight text-soft" data-testid="row-label">
        <span className="min-w-0">
          {short && !shown?.key.startsWith("short") && <strong className="text-ochre">counted as a try · </strong>}
          {shown?.label}
        </span>
        {seen.lines > 1 && (
          <span className="figures ml-auto shrink-0">
            {seen.at + 1} of {seen.lines}
          </span>
        )}
      </div>
      <div className="flex min-w-0 items-end gap-1.5">
        <div className="min-w-0 grow" data-row={shown?.key.replace(/ .*/, "")}>
          <Lines box={box} onSeen={onSeen}>
            <Suspense fallback={<div className="min-h-11" />}>{shown?.row}</Suspense>
          </Lines>
        </div>
        {(rows.length > 1 || seen.lines > 1) && (
          <button
            type="button"
            aria-label="another row"
            onClick={turn}
            className="grid h-(--line) w-11 shrink-0 place-items-center rounded-lg border-2 border-hair desk:h-12"
          >
            <RotateCw size={18} aria-hidden="true" />
          </button>
        )}
      </div>
    </div>
  );
}
