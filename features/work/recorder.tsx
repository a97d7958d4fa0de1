"use client";

import { Suspense, useEffect, useMemo, useRef, useState } from "react";
import { batteryPlace, FIRST_LOOK_STEPS } from "@/core/know";
import { openDanger, openStopSign, workSeconds } from "@/core/record";
import { type PackedStart, unpackStart } from "@/core/start/wire";
import { criterionParts } from "@/core/strands";
import { beginningSide, HEAT_MINUTES, heatOf, heatReasonOf, limitReached } from "@/core/word";
import { counted } from "@/core/words";
import { afterPaint } from "@/ui/after-paint";
import { clockWords } from "@/ui/measure";
import { useWay, WayLink } from "@/ui/way";
import { senderFor } from "../device/sender";
import { StatusLine } from "../device/status-line";
import { useWakeLock } from "../device/wake-lock";
import { useMarker } from "../listen/kept";
import { useTold } from "../sound/use-told";
import type { FinishNotes } from "./acts/block-acts";
import { stepChoice } from "./acts/block-acts";
import { planBlock, rungNumber } from "./block-facts";
import { CoachLine, coachOf } from "./coach-line";
import { BlockCount, HeaderLine } from "./header-line";
import { useKeys } from "./keys/use-keys";
import { fetchParts, lazyPart } from "./lazy-part";
import { LiveRibbon } from "./live-ribbon";
import { Pads } from "./pads";
import { rigDue } from "./rig";
import { BlockChooser } from "./sheets/block-chooser";
import { RecorderParts, useLog } from "./state";
import { MomentStrip } from "./strip/moment-strip";
import type { BlockChoice, Side } from "./types";
import { useNextFocus } from "./use-next-focus";
import { useRecorder } from "./use-recorder";
import { useTurning } from "./use-turning";
import { WordPanel } from "./word-panel";

// Whatever is not on the screen from the first moment comes after it, but before it is opened: the pen may be offline.
const BatteryPanel = lazyPart(() => import("./battery-panel").then(({ BatteryPanel }) => BatteryPanel));
const DwellCoach = lazyPart(() => import("./dwell-coach").then(({ DwellCoach }) => DwellCoach));
const PreflightPanel = lazyPart(() => import("./sheets/preflight").then(({ PreflightPanel }) => PreflightPanel));
const AftercarePanel = lazyPart(() => import("./sheets/aftercare").then(({ AftercarePanel }) => AftercarePanel));
const ComeBack = lazyPart(() => import("./sheets/come-back").then(({ ComeBack }) => ComeBack));
const LadderSheet = lazyPart(() => import("./sheets/ladder-sheet").then(({ LadderSheet }) => LadderSheet));
const Hearing = lazyPart(() => import("./hearing").then(({ Hearing }) => Hearing));
const TalkLine = lazyPart(() => import("./talk-line").then(({ TalkLine }) => TalkLine));
const RigPanel = lazyPart(() => import("./sheets/rig-panel").then(({ RigPanel }) => RigPanel));
const Sheets = lazyPart(() => import("./sheets/sheets").then(({ Sheets }) => Sheets));
const BinnedNote = lazyPart(() => import("../device/binned-note").then(({ BinnedNote }) => BinnedNote));
const TriesDue = lazyPart(() => import("./sheets/tries-due").then(({ TriesDue }) => TriesDue));
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

/** A long criterion is written smaller, so that it stays within two lines of a narrow screen. */
function sizeFor(parts: readonly { readonly text: string }[]): string {
  const letters = parts.reduce((sum, { text }) => sum + text.length, 0);
  return letters <= 56 ? "text-[1.18rem]" : letters <= 80 ? "text-[1.02rem]" : "text-[0.9rem]";
}

/** The stop card, where a danger sign was not answered yet. */
function Danger() {
  const session = useLog();
  const { record } = session;
  if (openDanger(record) === null) return null;
  const fact = openStopSign(record);
  return fact === null ? null : (
    <Suspense fallback={null}>
      <StopCard key={fact.id} fact={fact} />
    </Suspense>
  );
}

/** The recorder: criterion, ribbon and word above, pads below. */
export function Recorder({
  packed,
  chain = null,
}: {
  packed: PackedStart;
  /** The chain whose run it was begun for, by its id. */
  chain?: string | null;
}) {
  const given = useMemo(() => unpackStart(packed), [packed]);
  const onwards = useWay();
  const state = useRecorder(given);
  const { start, session, advice, way, block, silent, open, act, hint, setSheet } = state;
  // After a silence too long to be work it is asked first how it goes on.
  const working = state.working && !silent;
  const { record } = session;
  const [finishing, setFinishing] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const stopWaiting = useRef<(() => void) | null>(null);
  useEffect(() => () => stopWaiting.current?.(), []);
  useKeys(state);
  const turning = useTurning(state.turnPads);
  const looked = record.facts.some(({ type }) => type === "preflight");
  const stage = record.finishMs !== null ? "finished" : working ? `block ${record.blocks.length}` : looked ? "looked" : "";
  useNextFocus(state.sheet === null ? stage : "");
  // Begun on a chain's page: the run lies open once the look-over is done.
  const runOpens = chain !== null && looked && record.blocks.length === 0 && record.finishMs === null;
  useEffect(() => {
    if (runOpens) setSheet("run");
  }, [runOpens, setSheet]);
  useWakeLock(working);
  useEffect(() => afterPaint(fetchParts), []);
  const marker = useMarker();
  const finished = record.finishMs !== null;
  const review = `/horses/${start.session.horse.id}/review/${start.session.id}`;
  const planned = planBlock(start, record);
  const rung = planned === null ? start.part.next.rung : Math.min(rungNumber(start, planned), start.part.plan.rungs.length);
  // What the block itself was asked for stands, also where the ladder has been changed since.
  const parts = useMemo(() => {
    const labels = start.part.plan.phases.map((p) => p.label);
    const said =
      planned !== null && (planned.ladder === null ? !start.session.battery : planned.version !== start.part.version)
        ? planned.criterion?.sentence
        : null;
    return said != null
      ? [{ text: said, strong: false }]
      : criterionParts(start.part.plan.strands, start.part.plan.rungs[rung - 1]?.values ?? {}, labels);
  }, [start, planned, rung]);
  const coach = working ? coachOf({ start, session, block }, rung) : null;
  const schedule = block?.criterion?.schedule;
  useTold(record, advice, coach !== null && schedule !== undefined && schedule.kind !== "every" ? coach.nextEarns : null, working);

  const finish = (notes: FinishNotes) => {
    if (!finished) act.finish(notes);
    setSheet(null);
  };
  const toReview = async () => {
    const sender = senderFor(start.session.storeId);
    // In the pen the review is made from what the device has: nothing is waited for.
    if (onwards.pen) return onwards.push(review);
    setBusy(true);
    const sent = await sender.flush(4000);
    setBusy(false);
    if (sent) return onwards.push(review);
    setFinishing("The session is finished and kept on this device. The server does not answer; when it does it goes on to the review.");
    stopWaiting.current?.();
    const look = () => {
      const { waiting, unkept } = sender.snapshot();
      if (waiting?.size !== 0 || unkept.size > 0) return;
      stopWaiting.current?.();
      onwards.push(review);
    };
    stopWaiting.current = sender.subscribe(look);
    // It may have gone through in between.
    look();
  };

  if (!session.ready) return <main className="p-6 text-soft">Reading what this device has kept.</main>;
  // After a block the other side is offered; before the first the plan may say which.
  const otherSide: Side = block === null ? (beginningSide(start.part.plan, start.part.earlier) ?? "L") : block.side === "L" ? "R" : "L";
  const { workMinutes, repetitions } = start.today.allowance;
  const limit =
    limitReached({
      limits: { minutes: workMinutes, trials: repetitions, sessionTrials: record.trials.length },
      workMinutes: workSeconds(record, session.nowMs()) / 60,
    })?.reason ?? null;
  const firstStep = start.session.battery ? FIRST_LOOK_STEPS[batteryPlace(record).next ?? 0] : undefined;
  const first: BlockChoice = firstStep !== undefined ? stepChoice(firstStep) : { rung, side: otherSide, kind: start.part.next.kind };
  const again: BlockChoice = { rung, side: block?.side ?? "L", kind: start.session.battery ? "probe" : "work" };
  const preflight = !start.session.battery && record.blocks.length === 0 && !record.facts.some(({ type }) => type === "preflight");
  const freeStart = !start.session.battery && start.part.ladderId === null && planned === null;
  const listens = marker.on && !start.session.battery;
  const rig = rigDue(start, record);
  const heat = heatOf(record, start.yard.settings, start.today.heatLowerCelsius);
  const tooHot = heat?.level === "stop" ? heat : null;
  const heatReason = heatReasonOf(record);
  const { handler_place, company } = block?.criterion ?? {};
  const sheets = (
    <>
      {state.sheet !== null && (
        <Suspense fallback={null}>
          <Sheets first={again} chain={chain} onFinish={finish} />
        </Suspense>
      )}
      <Danger />
    </>
  );
  const dwelling = way === "timed" && open !== null;
  // At work the screen is laid out by recorder.css; before and after it the page is as long as it needs to be.
  if (working)
    return (
      <RecorderParts state={state}>
        <main className="pen" {...turning}>
          <HeaderLine rung={rung} className="pen-head" />
          {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reachable by keys */}
          <section aria-label="Now" className="pen-now" tabIndex={0}>
            {session.binned && (
              <Suspense fallback={null}>
                <BinnedNote sessionId={start.session.id} binned />
              </Suspense>
            )}
            <p className={`shrink-0 leading-tight desk:text-[1.9rem]! desk:leading-snug ${sizeFor(parts)}`} data-testid="criterion">
              {parts.map((part, i) => (part.strong ? <strong key={`${i}-${part.text}`}>{part.text}</strong> : part.text))}
              {(handler_place !== undefined || company !== undefined) && (
                <span className="sr-only">
                  {handler_place !== undefined && ` Handler: ${handler_place}.`}
                  {company !== undefined && ` Company: ${company}.`}
                </span>
              )}
            </p>
            <LiveRibbon record={record} nowMs={session.nowMs} />
            {start.session.battery && (
              <Suspense fallback={null}>
                <BatteryPanel record={record} limit={limit} onNext={act.takeWord} />
              </Suspense>
            )}
            {advice !== null && !(advice.word === "Stop" && (advice.why === "danger" || advice.why === "pain")) && (
              <WordPanel advice={advice} onTake={act.takeWord} />
            )}
            <BlockCount />
            {rig !== null && (
              <Suspense fallback={null}>
                <RigPanel asked={rig} />
              </Suspense>
            )}
            {coach !== null && <CoachLine coach={coach} asking={dwelling} />}
            <Suspense fallback={null}>
              <TalkLine />
            </Suspense>
            {listens && (
              <Suspense fallback={null}>
                <Hearing />
              </Suspense>
            )}
          </section>
          <section aria-label="Pads" className="contents">
            <div className="pen-strip">
              {dwelling && (
                <Suspense fallback={null}>
                  <DwellCoach open={open} />
                </Suspense>
              )}
              <div className={dwelling ? "hidden desk:block" : ""}>
                <MomentStrip />
              </div>
            </div>
            <Pads rung={rung} />
            <div className="pen-status">
              <StatusLine storeId={start.session.storeId} events={session.events} />
            </div>
          </section>
          {sheets}
        </main>
      </RecorderParts>
    );
  return (
    <RecorderParts state={state}>
      <main className="mx-auto flex min-h-dvh max-w-[480px] flex-col gap-2 px-3 pt-2 pb-1.5 lg:grid lg:max-w-[1180px] lg:grid-cols-[minmax(0,1fr)_430px] lg:grid-rows-[auto_1fr] lg:gap-x-12 lg:px-7 lg:pt-5">
        <HeaderLine rung={rung} className="lg:col-span-2" />
        <section aria-label="Now" className="flex min-w-0 flex-col gap-1.5 lg:gap-4">
          {!finished && (
            <p className="text-[1.18rem] leading-tight lg:text-[1.9rem] lg:leading-snug" data-testid="criterion">
              {parts.map((part, i) => (part.strong ? <strong key={`${i}-${part.text}`}>{part.text}</strong> : part.text))}
            </p>
          )}
          {record.blocks.length > 0 && <LiveRibbon record={record} nowMs={session.nowMs} />}
          {hint !== null && (
            <p role="alert" className="text-sm font-semibold text-ochre">
              {hint}
            </p>
          )}
        </section>
        <section aria-label="Pads" className="min-w-0 lg:col-start-2 lg:row-start-2">
          {finished ? (
            <div className="rounded-lg border-2 border-ink p-4">
              <h2 className="text-2xl">Finished</h2>
              <p className="mt-1 mb-3">
                {counted(record.trials.length, "trial")}, {clockWords(workSeconds(record))} of work.
              </p>
              {finishing !== null && <p className="mb-3 font-semibold text-brick">{finishing}</p>}
              <Suspense fallback={A_MOMENT}>
                <AftercarePanel onDone={() => void toReview()} busy={busy} />
              </Suspense>
              <WayLink href={review} className="link mt-3 inline-block py-2">
                To the review
              </WayLink>
            </div>
          ) : state.working && silent ? (
            <Suspense fallback={A_MOMENT}>
              <ComeBack first={again} />
            </Suspense>
          ) : preflight ? (
            <Suspense fallback={A_MOMENT}>
              <PreflightPanel />
            </Suspense>
          ) : freeStart ? (
            <div className="rounded-lg border-2 border-ink p-4">
              <Suspense fallback={A_MOMENT}>
                <LadderSheet />
              </Suspense>
              <div className="mt-3">
                <Cautions cautions={start.today.cautions} />
              </div>
            </div>
          ) : (
            <div className="rounded-lg border-2 border-ink p-4">
              {rig !== null && (
                <div className="mb-4">
                  <Suspense fallback={A_MOMENT}>
                    <RigPanel asked={rig} />
                  </Suspense>
                </div>
              )}
              {tooHot !== null && (
                <p role="alert" className="mb-3 border-4 border-brick p-2 font-semibold" data-testid="heat-caution">
                  <strong className="font-head text-2xl text-brick">Stop.</strong> Too hot to work ({Math.round(tooHot.wbgtCelsius)} °C WBGT{" "}
                  {tooHot.sky === "sun" ? "in the sun" : "in the shade"}). Shade, water over the whole body, moving air.
                  {heatReason === null ? " Leave it for today." : ` Walk only, ${HEAT_MINUTES} minutes at most: ${heatReason}.`}
                </p>
              )}
              <p className="mb-1 font-head text-lg font-bold text-tarn">{start.part.next.headline}</p>
              <p className="mb-3 text-sm text-soft">{start.part.next.reason}</p>
              {start.today.tries.length > 0 && (
                <Suspense fallback={null}>
                  <TriesDue />
                </Suspense>
              )}
              <BlockChooser start={start} first={first} onStart={act.begin} words="Start the block" />
              <div className="mt-3">
                <Cautions cautions={[...start.today.cautions, ...start.part.planCautions]} />
              </div>
            </div>
          )}
          <div className="mt-1.5 flex justify-center">
            <StatusLine storeId={start.session.storeId} events={session.events} />
          </div>
        </section>
        {sheets}
      </main>
    </RecorderParts>
  );
}
