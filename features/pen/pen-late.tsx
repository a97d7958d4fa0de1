"use client";

import type { HorsePack } from "@/core/pack";
import { todayOf } from "@/core/today";
import { LateForm } from "../work/late";
import type { KeptYard } from "./opened";

/** A session written down from memory, from what the device has. */
export function PenLate({ yard, pack, nowMs }: { yard: KeptYard; pack: HorsePack; nowMs: number }) {
  const { facts } = yard.yard;
  const { states } = todayOf(pack, facts, nowMs);
  if (states.length === 0) return <p className="text-lg">A session needs a ladder. Plan one on the computer.</p>;
  return (
    <LateForm
      storeId={yard.store}
      horse={pack.horse}
      ladders={states.map(({ ladder, next }) => ({
        id: ladder.id,
        version: ladder.version,
        name: ladder.behaviour.name,
        rung: next.rung,
        plan: ladder.plan,
      }))}
      people={facts.people}
      places={facts.places}
      nowMs={nowMs}
    />
  );
}
