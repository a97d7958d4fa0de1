"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { Suspense, useEffect, useMemo, useRef, useState } from "react";
import { batteryPlace, FIRST_LOOK_STEPS } from "@/core/know";
import { beginningSide, limitReached, openDanger, workSeconds } from "@/core/session";
import { criterionParts } from "@/core/strands";
import { afterPaint } from "@/ui/after-paint";
import { clockWords } from "@/ui/measure";
import type { FinishNotes } from "./acts/block-acts";
import { stepChoice } from "./acts/block-acts";
import { BatteryPanel } from "./battery-panel";
import { planBlock, rungNumber } from "./block-facts";
import { CoachLine, coachOf } from "./coach-line";
import { senderFor } from "./device/sender";
import { BlockCount, HeaderLine } from "./header-line";
import { useKeys } from "./keys/use-keys";
import { fetchParts, lazyPart } from "./lazy-part";
import { LiveRibbon } from "./live-ribbon";
import { Pads } from "./pads";
import { BlockChooser } from "./sheets/block-chooser";
import { useTold } from "./sound/use-told";
import { StatusLine } from "./status-line";
import { MomentStrip } from "./strip/moment-strip";
import type { BlockChoice, RecorderStart, Side } from "./types";
import { type RecorderState, useRecorder } from "./use-recorder";
import { useWakeLock } from "./wake-lock";
import { WordPanel } from "./word-panel";

// Whatever is not on the screen from the first moment comes after it, but before it is opened: the pen may be offline.
const DwellCoach = lazyPart(() => import("./dwell-coach").then(({ DwellCoach }) => DwellCoach));
const PreflightPanel = lazyPart(() => import("./sheets/preflight").then(({ PreflightPanel }) => PreflightPanel));
const AftercarePanel = lazyPart(() => import("./sheets/aftercare").then(({ AftercarePanel }) => AftercarePanel));
const LadderSheet = lazyPart(() => import("./sheets/ladder-sheet").then(({ LadderSheet }) => LadderSheet));
const Sheets = lazyPart(() => import("./sheets/sheets").then(({ Sheets }) => Sheets));
const StopCard = lazyPart(() => import("./sheets/stop-card").then(({ StopCard }) => StopCard));

const A_MOMENT = <p className="text-soft">A moment.</p>;

function Cautions({ cautions }: { cautions: readonly string[] }) {
  return (
    <p className="text-sm leading-snug text-soft">
      {cautions.map((caution) => (
        <strong key={caution} className="block text-brick">
          {caution}
        </strong>
      ))}
      Helmet, gloves, boots. Line folded in the hand, never wrapped. Stay out of the kick and strike zone. Stop for pain, lameness, heat or
      distress and call a veterinarian.
    </p>
  );
}

/** Where the last answer fell short of its rung, with the press that overrides it. */
function Shortfall({ state }: { state: RecorderState }) {
  const { record } = state.session;
  const last = record.trials.at(-1);
  if (last?.shortfall == null || last.overridden || last.blockIndex !== record.blocks.length - 1) return null;
  return (
    <p className="flex items-center justify-between gap-3 border-l-4 border-ochre pl-3 text-sm">
      <span>Counted as a try. {last.shortfall}</span>
      <button type="button" className="link min-h-11 shrink-0" onClick={state.act.countAsMet}>
        Count it as met
      </button>
    </p>
  );
}

/** The stop card, where a danger sign was not answered yet. */
function Danger({ state }: { state: RecorderState }) {
  const { record } = state.session;
  if (openDanger(record) === null) return null;
  const fact = record.facts.findLast(({ type, payload }) => type === "signal" && payload.class === "danger");
  return fact === undefined ? null : (
    <Suspense fallback={null}>
      <StopCard key={fact.id} state={state} fact={fact} />
    </Suspense>
  );
}

/** The recorder: criterion, ribbon and word above, pads below. */
export function Recorder({ given }: { given: RecorderStart }) {
  const router = useRouter();
  const state = useRecorder(given);
  const { start, session, advice, way, block, working, open, act, hint, setSheet } = state;
  const { record } = session;
  const [finishing, setFinishing] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const stopWaiting = useRef<(() => void) | null>(null);
  useEffect(() => () => stopWaiting.current?.(), []);
  useKeys(state);
  useWakeLock(working);
  useEffect(() => afterPaint(fetchParts), []);
  const finished = record.finishMs !== null;
  const review = `/horses/${start.horse.id}/review/${start.sessionId}`;
  const planned = planBlock(start, record);
  const rung = planned === null ? start.next.rung : Math.min(rungNumber(start, planned), start.plan.rungs.length);
  // What the block itself was asked for stands, also where the ladder has been changed since.
  const parts = useMemo(() => {
    const labels = start.plan.phases.map((p) => p.label);
    const said =
      planned !== null && (planned.ladder === null ? !start.battery : planned.version !== start.version)
        ? planned.criterion?.sentence
        : null;
    return said != null
      ? [{ text: said, strong: false }]
      : criterionParts(start.plan.strands, start.plan.rungs[rung - 1]?.values ?? {}, labels);
  }, [start, planned, rung]);
  const coach = working ? coachOf(state, rung) : null;
  const schedule = block?.criterion?.schedule;
  useTold(record, advice, coach !== null && schedule !== undefined && schedule.kind !== "every" ? coach.nextEarns : null, working);

  const finish = (notes: FinishNotes) => {
    if (!finished) act.finish(notes);
    setSheet(null);
  };
  const toReview = async () => {
    const sender = senderFor(start.storeId);
    setBusy(true);
    const sent = await sender.flush(4000);
    setBusy(false);
    if (sent) return router.push(review);
    setFinishing("The session is finished and kept on this device. The server does not answer; when it does it goes on to the review.");
    stopWaiting.current?.();
    const look = () => {
      const { waiting, unkept } = sender.snapshot();
      if (waiting?.size !== 0 || unkept.size > 0) return;
      stopWaiting.current?.();
      router.push(review);
    };
    stopWaiting.current = sender.subscribe(look);
    // It may have gone through in between.
    look();
  };

  if (!session.ready) return <main className="p-6 text-soft">Reading what this device has kept.</main>;
  // After a block the other side is offered; before the first the plan may say which.
  const otherSide: Side = block === null ? (beginningSide(start.plan, start.earlier) ?? "L") : block.side === "L" ? "R" : "L";
  const { workMinutes, repetitions } = start.allowance;
  const limit =
    limitReached({
      limits: { minutes: workMinutes, trials: repetitions, sessionTrials: record.trials.length },
      workMinutes: workSeconds(record, session.nowMs()) / 60,
    })?.reason ?? null;
  const firstStep = start.battery ? FIRST_LOOK_STEPS[batteryPlace(record).next ?? 0] : undefined;
  const first: BlockChoice = firstStep !== undefined ? stepChoice(firstStep) : { rung, side: otherSide, kind: start.next.kind };
  const again: BlockChoice = { rung, side: block?.side ?? "L", kind: block?.kind ?? (start.battery ? "probe" : "work") };
  const preflight = !start.battery && record.blocks.length === 0 && !record.facts.some(({ type }) => type === "preflight");
  const freeStart = !start.battery && start.ladderId === null && planned === null;
  const { handler_place, company } = block?.criterion ?? {};
  return (
    // At work the pads keep their place whatever comes above them: on a phone the page is one screen, and what lies over
    // the pads gives way, the ribbon first.
    <main
      className={`mx-auto flex min-h-dvh max-w-[430px] flex-col gap-1.5 px-3 pt-2 pb-1.5 ${working ? "max-lg:h-dvh max-lg:min-h-[600px]" : ""} lg:max-w-[1180px] lg:grid lg:grid-cols-[minmax(0,1fr)_430px] lg:grid-rows-[auto_1fr] lg:gap-x-12 lg:px-7 lg:pt-5`}
    >
      <HeaderLine state={state} rung={rung} />
      <section
        aria-label="Now"
        tabIndex={working ? 0 : undefined}
        className={`flex min-w-0 flex-col gap-1.5 lg:gap-4 ${working ? "max-lg:min-h-0 max-lg:shrink max-lg:overflow-y-auto max-lg:overflow-x-hidden" : ""}`}
      >
        {!finished && (
          <p className="text-[1.18rem] leading-tight lg:text-[1.9rem] lg:leading-snug" data-testid="criterion">
            {parts.map((part, i) => (part.strong ? <strong key={`${i}-${part.text}`}>{part.text}</strong> : part.text))}
            {working && (handler_place !== undefined || company !== undefined) && (
              <span className="sr-only">
                {handler_place !== undefined && ` Handler: ${handler_place}.`}
                {company !== undefined && ` Company: ${company}.`}
              </span>
            )}
          </p>
        )}
        {record.blocks.length > 0 && <LiveRibbon record={record} nowMs={session.nowMs} />}
        {working && start.battery && <BatteryPanel record={record} limit={limit} onNext={act.takeWord} />}
        {working && advice !== null && advice.word !== "Stop" && <WordPanel advice={advice} onTake={act.takeWord} />}
        {working && <BlockCount state={state} />}
        {working && <Shortfall state={state} />}
        {hint !== null && (
          <p role="alert" className="text-sm font-semibold text-ochre">
            {hint}
          </p>
        )}
      </section>
      <section aria-label="Pads" className="mt-auto min-w-0 shrink-0 contain-layout contain-paint lg:col-start-2 lg:row-start-2 lg:mt-0">
        {finished ? (
          <div className="rounded-lg border-2 border-ink p-4">
            <h2 className="text-2xl">Finished</h2>
            <p className="mt-1 mb-3">
              {record.trials.length} trials, {clockWords(workSeconds(record))} of work.
            </p>
            {finishing !== null && <p className="mb-3 font-semibold text-brick">{finishing}</p>}
            <Suspense fallback={A_MOMENT}>
              <AftercarePanel state={state} onDone={() => void toReview()} busy={busy} />
            </Suspense>
            <Link href={review} prefetch={false} className="link mt-3 inline-block py-2">
              To the review
            </Link>
          </div>
        ) : working ? (
          <div className="grid min-w-0 gap-1.5">
            {way === "timed" ? (
              <div className="flex min-h-[54px] items-center">
                {open !== null ? (
                  <Suspense fallback={null}>
                    <DwellCoach state={state} open={open} />
                  </Suspense>
                ) : (
                  coach !== null && <CoachLine state={state} coach={coach} />
                )}
              </div>
            ) : (
              coach !== null && <CoachLine state={state} coach={coach} />
            )}
            <MomentStrip state={state} />
            <Pads state={state} rung={rung} />
          </div>
        ) : preflight ? (
          <Suspense fallback={A_MOMENT}>
            <PreflightPanel state={state} />
          </Suspense>
        ) : freeStart ? (
          <div className="rounded-lg border-2 border-ink p-4">
            <Suspense fallback={A_MOMENT}>
              <LadderSheet state={state} />
            </Suspense>
            <div className="mt-3">
              <Cautions cautions={start.cautions} />
            </div>
          </div>
        ) : (
          <div className="rounded-lg border-2 border-ink p-4">
            <p className="mb-1 font-head text-lg font-bold text-tarn">{start.next.headline}</p>
            <p className="mb-3 text-sm text-soft">{start.next.reason}</p>
            <BlockChooser start={start} first={first} onStart={act.begin} words="Start the block" />
            <div className="mt-3">
              <Cautions cautions={[...start.cautions, ...start.planCautions]} />
            </div>
          </div>
        )}
        <div className="mt-1.5 flex justify-center">
          <StatusLine storeId={start.storeId} events={session.events} />
        </div>
      </section>
      {state.sheet !== null && (
        <Suspense fallback={null}>
          <Sheets state={state} first={again} onFinish={finish} />
        </Suspense>
      )}
      <Danger state={state} />
    </main>
  );
}
