"use client";

import { useEffect, useRef, useState } from "react";
import type { HorsePack } from "@/core/pack";
import { startChoicesByHandler } from "@/core/start";
import { openCoolDowns } from "@/core/today";
import { useWay } from "@/ui/way";
import { StartSession } from "../work/start";
import type { KeptYard } from "./opened";
import type { HeldHorse } from "./use-held";

/** What may be begun with this horse, from what the device has; what comes from the server later is laid before it while nothing was touched. */
export function PenStart({ yard, held, pack, goOn }: { yard: KeptYard; held: HeldHorse; pack: HorsePack; goOn: boolean }) {
  const way = useWay();
  const touched = useRef(false);
  const [shown, setShown] = useState({ pack, nowMs: held.nowMs, revision: held.revision });
  useEffect(() => {
    if (!touched.current && held.pack !== null) setShown({ pack: held.pack, nowMs: held.nowMs, revision: held.revision });
  }, [held]);
  const running = pack.open.find((one) => one.running);
  useEffect(() => {
    if (goOn && running !== undefined) way.push(`/horses/${pack.horse.id}/work/${running.id}`);
  }, [goOn, running, way, pack.horse.id]);
  const { facts } = yard.yard;
  const form = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const touch = () => {
      touched.current = true;
    };
    const node = form.current;
    node?.addEventListener("pointerdown", touch);
    node?.addEventListener("keydown", touch);
    return () => {
      node?.removeEventListener("pointerdown", touch);
      node?.removeEventListener("keydown", touch);
    };
  }, []);
  return (
    <div ref={form}>
      <StartSession
        key={shown.revision}
        horse={shown.pack.horse}
        byHandler={startChoicesByHandler(shown.pack, facts, shown.nowMs)}
        yard={facts}
        last={shown.pack.last}
        open={shown.pack.open}
        cooling={openCoolDowns(shown.pack.worked, shown.nowMs)}
        storeId={yard.store}
        unread={shown.pack.unread !== undefined}
      />
    </div>
  );
}
