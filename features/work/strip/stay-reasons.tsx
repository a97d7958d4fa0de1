"use client";

import { useState } from "react";
import { shortNumber } from "@/core/strands";
import { chip } from "@/ui/chip";
import { useActs, useNow, useStart } from "../state";

/** Why the stay ended, and how far off the handler was. */
export function StayReasons({ seconds }: { seconds: number | null }) {
  const start = useStart();
  const { block } = useNow();
  const act = useActs();
  const reach = start.part.plan.strands.find(({ key }) => key === "reach");
  const planned = reach === undefined ? undefined : start.part.plan.rungs[Number(block?.rung) - 1]?.values[reach.id];
  const [metres, setMetres] = useState<number | null>(typeof planned === "number" ? planned : null);
  const step = (by: number) => setMetres(Math.max(0, Math.round(((metres ?? 0) + by) * 2) / 2));
  return (
    <fieldset className="flex min-w-0 flex-wrap items-center gap-1.5" aria-label="What ended the stay">
      {seconds !== null && <span className="figures shrink-0 pr-1 font-semibold">{shortNumber(seconds)} s</span>}
      <button type="button" className={chip(false)} onClick={() => act.stayEnded("criterion", metres)}>
        asked
      </button>
      <button type="button" className={chip(false)} onClick={() => act.stayEnded("left", metres)}>
        it left
      </button>
      <button type="button" className={chip(false)} onClick={() => act.stayEnded("handler", metres)}>
        I ended it
      </button>
      <button type="button" className={`${chip(false)} ml-auto`} aria-label="handler nearer" onClick={() => step(-0.5)}>
        −
      </button>
      <span className="figures shrink-0 text-sm" data-testid="handler-distance">
        {metres === null ? "distance" : `${shortNumber(metres)} m off`}
      </span>
      <button type="button" className={chip(false)} aria-label="handler farther" onClick={() => step(0.5)}>
        +
      </button>
    </fieldset>
  );
}
