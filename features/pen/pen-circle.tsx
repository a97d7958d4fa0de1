"use client";

import { useState } from "react";
import type { HorsePack } from "@/core/pack";
import { plannerStart } from "@/core/start";
import { CirclePlanner } from "../circle/planner";
import type { KeptYard } from "./opened";

/** The planner of circle work, from what the device has. What it begins with is worked out once: what was typed stays. */
export function PenCircle({ yard, pack, nowMs }: { yard: KeptYard; pack: HorsePack; nowMs: number }) {
  const [start] = useState(() => plannerStart(pack, yard.yard.facts, nowMs));
  return <CirclePlanner start={start} storeId={yard.store} />;
}
