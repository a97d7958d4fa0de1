"use client";

import { Suspense } from "react";
import { HEAT_MINUTES, heatOf, heatReasonOf } from "@/core/advice";
import { lazyPart } from "../lazy-part";
import { rigDue } from "../rig";
import { useActs, useLog, useStart } from "../state";
import type { BlockChoice } from "../types";
import { BlockChooser } from "./block-chooser";
import { UsualCautions } from "./usual-cautions";

const RigPanel = lazyPart(() => import("./rig-panel").then(({ RigPanel }) => RigPanel));
const TriesDue = lazyPart(() => import("./tries-due").then(({ TriesDue }) => TriesDue));

/** Too hot: what to do, and what is left of the session where there was a reason. Nothing where it is not. */
function TooHot() {
  const { yard, today } = useStart();
  const { record } = useLog();
  const heat = heatOf(record, yard.settings, today.heatLowerCelsius);
  if (heat?.level !== "stop") return null;
  const reason = heatReasonOf(record);
  return (
    <p role="alert" className="mb-3 border-4 border-brick p-2 font-semibold" data-testid="heat-caution">
      <strong className="font-head text-2xl text-brick">Stop.</strong> Too hot to work ({Math.round(heat.wbgtCelsius)} °C WBGT{" "}
      {heat.sky === "sun" ? "in the sun" : "in the shade"}). Shade, water over the whole body, moving air.
      {reason === null ? " Leave it for today." : ` Walk only, ${HEAT_MINUTES} minutes at most: ${reason}.`}
    </p>
  );
}

/** Before a block: what comes next and why, the rig, the heat, what is due, and the block to begin. */
export function BeforeBlock({ first }: { first: BlockChoice }) {
  const start = useStart();
  const { record } = useLog();
  const act = useActs();
  const rig = rigDue(start, record);
  return (
    <div className="rounded-lg border-2 border-ink p-4">
      {rig !== null && (
        <div className="mb-4">
          <Suspense fallback={<p className="text-soft">A moment.</p>}>
            <RigPanel asked={rig} />
          </Suspense>
        </div>
      )}
      <TooHot />
      <p className="mb-1 font-head text-lg font-bold text-tarn">{start.part.next.headline}</p>
      <p className="mb-3 text-sm text-soft">{start.part.next.reason}</p>
      {start.today.tries.length > 0 && (
        <Suspense fallback={null}>
          <TriesDue />
        </Suspense>
      )}
      <BlockChooser start={start} first={first} onStart={act.begin} words="Start the block" />
      <div className="mt-3">
        <UsualCautions cautions={[...start.today.cautions, ...start.part.planCautions]} />
      </div>
    </div>
  );
}
