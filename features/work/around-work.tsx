"use client";

import { type ReactNode, Suspense } from "react";
import { workSeconds } from "@/core/record";
import { counted } from "@/core/words";
import { clockWords } from "@/ui/measure";
import { WayLink } from "@/ui/way";
import { StatusLine } from "../device/status-line";
import { Criterion } from "./criterion-line";
import { HeaderLine } from "./header-line";
import { lazyPart } from "./lazy-part";
import { LiveRibbon } from "./live-ribbon";
import { BeforeBlock } from "./sheets/before-block";
import { UsualCautions } from "./sheets/usual-cautions";
import type { Stage } from "./stage";
import { useLog, useNow, useStart } from "./state";
import type { BlockChoice } from "./types";
import type { useCriterion } from "./use-criterion";
import { useToReview } from "./use-to-review";

const PreflightPanel = lazyPart(() => import("./sheets/preflight").then(({ PreflightPanel }) => PreflightPanel));
const AftercarePanel = lazyPart(() => import("./sheets/aftercare").then(({ AftercarePanel }) => AftercarePanel));
const ComeBack = lazyPart(() => import("./sheets/come-back").then(({ ComeBack }) => ComeBack));
const LadderSheet = lazyPart(() => import("./sheets/ladder-sheet").then(({ LadderSheet }) => LadderSheet));

/** Every stage in which no pads stand there. */
export type StageAround = Exclude<Stage, "reading" | "work">;

/** After the session: how much it was, aftercare, and the way to the review. */
function Finished() {
  const start = useStart();
  const { record } = useLog();
  const review = `/horses/${start.session.horse.id}/review/${start.session.id}`;
  const toReview = useToReview(start.session.storeId, review);
  return (
    <div className="rounded-lg border-2 border-ink p-4">
      <h2 className="text-2xl">Finished</h2>
      <p className="mt-1 mb-3">
        {counted(record.trials.length, "trial")}, {clockWords(workSeconds(record))} of work.
      </p>
      {toReview.waits !== null && <p className="mb-3 font-semibold text-brick">{toReview.waits}</p>}
      <AftercarePanel onDone={toReview.go} busy={toReview.busy} />
      <WayLink href={review} className="link mt-3 inline-block py-2">
        To the review
      </WayLink>
    </div>
  );
}

/** Begun free: what is worked is chosen or named. */
function Unplanned() {
  const start = useStart();
  return (
    <div className="rounded-lg border-2 border-ink p-4">
      <LadderSheet />
      <div className="mt-3">
        <UsualCautions cautions={start.today.cautions} />
      </div>
    </div>
  );
}

/** The recorder before, between and after blocks: the page is as long as it needs to be. */
export function AroundWork({
  stage,
  criterion: { rung, parts },
  first,
  again,
  children,
}: {
  stage: StageAround;
  criterion: ReturnType<typeof useCriterion>;
  /** The block that is offered. */
  first: BlockChoice;
  /** The one that ran, once more. */
  again: BlockChoice;
  /** What lies over it. */
  children: ReactNode;
}) {
  const start = useStart();
  const { record, nowMs, tapped } = useLog();
  const { hint } = useNow();
  const shown: Readonly<Record<StageAround, () => ReactNode>> = {
    finished: () => <Finished />,
    silent: () => <ComeBack first={again} />,
    "look-over": () => <PreflightPanel />,
    unplanned: () => <Unplanned />,
    between: () => <BeforeBlock first={first} />,
  };
  return (
    <main className="mx-auto flex min-h-dvh max-w-[480px] flex-col gap-2 px-3 pt-2 pb-1.5 lg:grid lg:max-w-[1180px] lg:grid-cols-[minmax(0,1fr)_430px] lg:grid-rows-[auto_1fr] lg:gap-x-12 lg:px-7 lg:pt-5">
      <HeaderLine rung={rung} className="lg:col-span-2" />
      <section aria-label="Now" className="flex min-w-0 flex-col gap-1.5 lg:gap-4">
        {stage !== "finished" && <Criterion parts={parts} />}
        {record.blocks.length > 0 && <LiveRibbon record={record} nowMs={nowMs} />}
        {hint !== null && (
          <p role="alert" className="text-sm font-semibold text-ochre">
            {hint}
          </p>
        )}
      </section>
      <section aria-label="Pads" className="min-w-0 lg:col-start-2 lg:row-start-2">
        <Suspense fallback={<p className="text-soft">A moment.</p>}>{shown[stage]()}</Suspense>
        <div className="mt-1.5 flex justify-center">
          <StatusLine storeId={start.session.storeId} tapped={tapped} />
        </div>
      </section>
      {children}
    </main>
  );
}
