"use client";

import { memo, useMemo } from "react";
import { whereNow } from "@/core/record";
import { chip } from "@/ui/chip";
import { useActs, useLog, useScreen } from "../state";
import type { Zone } from "../types";
import type { RecorderState } from "../use-recorder";

interface ChipsProps {
  readonly zones: readonly string[];
  readonly zone: string | null;
  readonly away: boolean;
  readonly act: RecorderState["act"];
  readonly onTouch: ((sheet: "touch") => void) | null;
}

/** Drawn anew only where the horse has moved, not with every press of a pad. */
const Chips = memo(function Chips({ zones, zone, away, act, onTouch }: ChipsProps) {
  return (
    <fieldset className="flex min-w-0 flex-wrap gap-1.5" aria-label="Where the horse is">
      <button type="button" aria-pressed={away} onClick={act.away} className={`${chip(away)} border-dashed`}>
        {away ? "is back" : "leaves"}
      </button>
      {zones.map((one) => (
        <button key={one} type="button" aria-pressed={zone === one} onClick={() => act.zone(one)} className={chip(zone === one)}>
          {one}
        </button>
      ))}
      {onTouch !== null && (
        <button type="button" onClick={() => onTouch("touch")} className={chip(false)}>
          touch
        </button>
      )}
    </fieldset>
  );
});

/** Where the horse is: its zone, and whether it has left. One tap each. */
export function WhereRow({ zones, touch }: { zones: readonly Zone[]; touch: boolean }) {
  const session = useLog();
  const act = useActs();
  const { setSheet } = useScreen();
  const { zone, away } = whereNow(session.record);
  const names = useMemo(() => zones.map(({ name }) => name), [zones]);
  return <Chips zones={names} zone={zone} away={away} act={act} onTouch={touch ? setSheet : null} />;
}
