"use client";

import { useEffect, useState } from "react";
import type { Touch, TouchTool, TouchZone } from "@/core/know";
import { TouchBoard } from "../touch/touch-board";
import { TOUCH_BLOCK, touchFacts } from "../touch/touch-facts";
import { WatchShell } from "./shell";
import { useWatch, type WatchStart } from "./use-watch";

function useWide(): boolean {
  const [wide, setWide] = useState(false);
  useEffect(() => {
    const media = window.matchMedia("(min-width: 1024px)");
    const look = () => setWide(media.matches);
    look();
    media.addEventListener("change", look);
    return () => media.removeEventListener("change", look);
  }, []);
  return wide;
}

/** A session of touching alone: the body map and its grades. */
export function TouchRecorder({ start, touches }: { start: WatchStart; touches: readonly Touch[] }) {
  const watch = useWatch(start);
  const wide = useWide();
  const touch = (zone: TouchZone, side: "L" | "R", tool: TouchTool, grade: number) => watch.press(...touchFacts(zone, side, tool, grade));
  return (
    <WatchShell
      start={start}
      watch={watch}
      title="touch"
      after={`/horses/${start.session.horse.id}/know/touch`}
      intro={
        <>
          <p>
            Go near with the tool, touch, go away again as it softens; then tap the zone and how it was taken. Helmet on. Out of the kick
            and strike zone, a stick first where you are not sure.
          </p>
          <button type="button" className="act min-h-16 text-xl" onClick={() => watch.begin(TOUCH_BLOCK)}>
            Begin
          </button>
        </>
      }
    >
      <TouchBoard touches={touches} record={watch.record} offLimits={start.today.allowance.touchOff} onTouch={touch} wide={wide} />
    </WatchShell>
  );
}
