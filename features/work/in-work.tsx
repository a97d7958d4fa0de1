"use client";

import { type ReactNode, Suspense } from "react";
import { limitReached } from "@/core/advice";
import type { ReinforcementCoach } from "@/core/coach";
import { workSeconds } from "@/core/record";
import { StatusLine } from "../device/status-line";
import { useMarker } from "../listen/kept";
import { AdvicePanel } from "./advice-panel";
import { CoachLine } from "./coach-line";
import { CriterionAtWork } from "./criterion-line";
import { openPads } from "./face";
import { BlockCount, HeaderLine } from "./header-line";
import { lazyPart } from "./lazy-part";
import { LiveRibbon } from "./live-ribbon";
import { Pads } from "./pads";
import { rigDue } from "./rig";
import { useActs, useLog, useNow, useScreen, useStart } from "./state";
import { MomentStrip } from "./strip/moment-strip";
import type { useCriterion } from "./use-criterion";
import { useTurning } from "./use-turning";

const BatteryPanel = lazyPart(() => import("./battery-panel").then(({ BatteryPanel }) => BatteryPanel));
const BinnedNote = lazyPart(() => import("../device/binned-note").then(({ BinnedNote }) => BinnedNote));
const DwellCoach = lazyPart(() => import("./dwell-coach").then(({ DwellCoach }) => DwellCoach));
const Hearing = lazyPart(() => import("./hearing").then(({ Hearing }) => Hearing));
const PlainPads = lazyPart(() => import("./plain-pads").then(({ PlainPads }) => PlainPads));
const RigPanel = lazyPart(() => import("./sheets/rig-panel").then(({ RigPanel }) => RigPanel));
const TalkLine = lazyPart(() => import("./talk-line").then(({ TalkLine }) => TalkLine));

/** The battery's own part: what is asked, and what of the day's limits is reached. Nothing in work. */
function Battery() {
  const start = useStart();
  const session = useLog();
  const act = useActs();
  if (!start.session.battery) return null;
  const { workMinutes, repetitions } = start.today.allowance;
  const limits = { minutes: workMinutes, trials: repetitions, sessionTrials: session.record.trials.length };
  const limit = limitReached({ limits, workMinutes: workSeconds(session.record, session.nowMs()) / 60 });
  return <BatteryPanel record={session.record} limit={limit?.reason ?? null} onNext={act.takeAdvice} />;
}

/** The word, except where the stop card says it. */
function AdviceLine() {
  const { advice } = useNow();
  const act = useActs();
  if (advice === null || (advice.word === "Stop" && (advice.why === "danger" || advice.why === "pain"))) return null;
  return <AdvicePanel advice={advice} onTake={act.takeAdvice} />;
}

/** The recorder while a block runs: criterion, ribbon and word above, pads below. Its screen is laid out by recorder.css. */
export function InWork({
  criterion: { rung, parts },
  coach,
  children,
}: {
  criterion: ReturnType<typeof useCriterion>;
  coach: ReinforcementCoach | null;
  /** What lies over it. */
  children: ReactNode;
}) {
  const start = useStart();
  const session = useLog();
  const { block, way, open } = useNow();
  const { turnPads, face, plain } = useScreen();
  const turning = useTurning(turnPads, plain);
  const marker = useMarker();
  const rig = rigDue(start, session.record);
  const dwelling = way === "timed" && open !== null;
  return (
    <main className={plain ? "pen pen-plain" : "pen"} {...turning}>
      <HeaderLine rung={rung} className="pen-head" />
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reachable by keys */}
      <section aria-label="Now" className="pen-now" tabIndex={0}>
        <Suspense fallback={null}>{session.binned && <BinnedNote sessionId={start.session.id} binned />}</Suspense>
        <CriterionAtWork parts={parts} block={block} />
        {!plain && <LiveRibbon record={session.record} nowMs={session.nowMs} />}
        <Suspense fallback={null}>
          <Battery />
        </Suspense>
        <AdviceLine />
        <BlockCount />
        <Suspense fallback={null}>{rig !== null && <RigPanel asked={rig} />}</Suspense>
        {coach !== null && (!plain || start.part.plan.schedule.kind !== "every") && <CoachLine coach={coach} asking={dwelling} />}
        {!plain && (
          <Suspense fallback={null}>
            <TalkLine />
          </Suspense>
        )}
        <Suspense fallback={null}>{marker.on && !start.session.battery && <Hearing />}</Suspense>
      </section>
      <section aria-label="Pads" className="contents">
        <div className="pen-strip">
          {dwelling && (
            <Suspense fallback={null}>
              <DwellCoach open={open} />
            </Suspense>
          )}
          <div className={dwelling ? "hidden desk:block" : ""}>
            <MomentStrip wantedOnly={plain} />
          </div>
        </div>
        {plain ? (
          <Suspense fallback={<div className="pen-pads" />}>
            <PlainPads rung={rung} />
          </Suspense>
        ) : (
          <Pads rung={rung} />
        )}
        <div className="pen-status">
          {face === "plain" && !plain && (
            <button type="button" className="link mr-3 min-h-11 px-2" onClick={() => openPads(false)}>
              Fewer pads
            </button>
          )}
          <StatusLine storeId={start.session.storeId} tapped={session.tapped} />
        </div>
      </section>
      {children}
    </main>
  );
}
