"use client";

import { Keyboard } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { lazy, Suspense, useEffect, useState } from "react";
import { batteryPlace, FIRST_LOOK_STEPS } from "@/core/know";
import { beginningSide, limitReached, workSeconds } from "@/core/session";
import { criterionParts, EASE_GRADES } from "@/core/strands";
import { clockWords } from "@/ui/measure";
import { OutcomeSign } from "@/ui/ribbon";
import { BatteryPanel } from "./battery-panel";
import { BlockChooser, Sheet } from "./block-dialog";
import { planBlock, rungNumber } from "./block-facts";
import { senderFor } from "./device/sender";
import { FinishForm } from "./finish-form";
import { actOf, KEYS } from "./keys";
import { LiveRibbon } from "./live-ribbon";
import { Pads } from "./pads";
import { StatusLine } from "./status-line";
import type { BlockChoice, RecorderStart, Side } from "./types";
import { type RecorderState, stepChoice, useRecorder } from "./use-recorder";
import { useWakeLock } from "./wake-lock";
import { WhereRow } from "./where-row";
import { WordPanel } from "./word-panel";

/** The values of a counted strand, only where there is one to count. */
const ValueRow = lazy(() => import("./value-row").then(({ ValueRow }) => ({ default: ValueRow })));

/** The body map is only fetched where it is opened. */
const TouchBoard = lazy(() => import("../touch/touch-board").then(({ TouchBoard }) => ({ default: TouchBoard })));

const SIDE_WORD = { L: "left side", R: "right side" } as const;
const KIND_WORD = { work: "", "warm-up": "warm-up", probe: "probe", sure: "sure one" } as const;

function useEachSecond() {
  const [, tick] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => tick((n) => n + 1), 1000);
    return () => clearInterval(timer);
  }, []);
}

/** The session's clock; with the rate it alone repaints each second. */
function Clock({ state }: { state: RecorderState }) {
  useEachSecond();
  const { record, nowMs } = state.session;
  return (
    <span className="figures text-right font-head text-2xl leading-none font-bold" suppressHydrationWarning>
      {clockWords(workSeconds(record, nowMs()))}
    </span>
  );
}

/** The working rate: met answers a minute of working time. */
function Rate({ state }: { state: RecorderState }) {
  useEachSecond();
  const { record, nowMs } = state.session;
  const seconds = workSeconds(record, nowMs());
  const met = record.trials.filter((trial) => trial.outcome === "met").length;
  return (
    <span className="figures text-right text-sm whitespace-nowrap text-soft" suppressHydrationWarning>
      {seconds < 20 ? "–" : ((met * 60) / seconds).toFixed(1)} met a minute
    </span>
  );
}

/** The trials of this block as signs, with the count against the plan. */
function BlockCount({ state }: { state: RecorderState }) {
  const { block } = state;
  const { record } = state.session;
  const index = record.blocks.length - 1;
  const trials = block === null ? [] : record.trials.filter((trial) => trial.blockIndex === index);
  const met = trials.filter((trial) => trial.outcome === "met").length;
  const shown = trials.slice(-11);
  return (
    <div className="flex items-center justify-between gap-3">
      <svg
        viewBox="0 0 290 24"
        className="h-6 w-[290px] max-w-[72%]"
        role="img"
        aria-label={`This block: ${trials.map((t) => t.outcome).join(", ") || "no trials yet"}`}
      >
        {shown.map((trial, i) => (
          <g key={trial.eventId} transform={`translate(${13 + i * 26} 12)`}>
            <OutcomeSign outcome={trial.outcome} radius={8} stroke={2.2} />
          </g>
        ))}
        {shown.length < 11 && (
          <circle cx={13 + shown.length * 26} cy="12" r="8" fill="none" stroke="var(--hair)" strokeWidth="2" strokeDasharray="3 3" />
        )}
      </svg>
      <span className="figures text-sm whitespace-nowrap" data-testid="block-count">
        {met} met of {trials.length}
        {block?.planned != null && <span className="text-soft"> · plan {block.planned}</span>}
      </span>
    </div>
  );
}

function useKeys(state: RecorderState) {
  const { act, way, sheet, setSheet } = state;
  useEffect(() => {
    // Someone who walks the pads by Tab means the focused pad with the space bar; everyone else means the hold.
    let byTab = false;
    const onPad = (target: EventTarget | null) => byTab && target instanceof HTMLElement && target.closest("button,a,summary") !== null;
    const pointer = () => {
      byTab = false;
    };
    const down = (event: KeyboardEvent) => {
      if (event.key === "Tab") byTab = true;
      if (sheet !== null) return;
      if (event.key === " " && way === "timed" && !onPad(event.target)) event.preventDefault();
      const what = actOf(event);
      if (what === null) return;
      if (what === "hold") return way === "timed" && !onPad(event.target) ? act.hold(true) : undefined;
      if (typeof what === "number") return act.phase(what);
      if (what === "met" || what === "try" || what === "miss" || what === "refused") return act.outcome(what);
      if (what === "keys") return setSheet("keys");
      if (what === "break") return act.takeBreak();
      if (what === "word") return act.takeWord();
      act[what]();
    };
    const up = (event: KeyboardEvent) => {
      if (event.key !== " " || way !== "timed" || onPad(event.target)) return;
      event.preventDefault();
      act.hold(false);
    };
    window.addEventListener("keydown", down);
    window.addEventListener("keyup", up);
    window.addEventListener("pointerdown", pointer);
    return () => {
      window.removeEventListener("keydown", down);
      window.removeEventListener("keyup", up);
      window.removeEventListener("pointerdown", pointer);
    };
  }, [act, way, sheet, setSheet]);
}

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

/** The recorder: criterion, ribbon and word above, pads below. */
export function Recorder({ start }: { start: RecorderStart }) {
  const router = useRouter();
  const state = useRecorder(start);
  const { session, advice, way, setWay, block, working, act, hint, sheet, setSheet } = state;
  const { record } = session;
  const [finishing, setFinishing] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  useKeys(state);
  useWakeLock(working);
  const finished = record.finishMs !== null;
  const review = `/horses/${start.horse.id}/review/${start.sessionId}`;
  const planned = planBlock(start, record);
  const rung = planned === null ? start.next.rung : rungNumber(start, planned);
  const parts = criterionParts(
    start.plan.strands,
    start.plan.rungs[rung - 1]?.values ?? {},
    start.plan.phases.map((p) => p.label),
  );
  // A stay is timed by the hold; only where its bar follows the horse does a tally need its seconds.
  const counted = block?.criterion?.working;
  const counting = working && counted !== undefined && (block?.criterion?.stay_s === undefined || counted.percentile !== undefined);
  const last = record.trials.at(-1);
  const wantsEase =
    (start.battery || block?.criterion?.min_ease !== undefined) && last !== undefined && last.blockIndex === record.blocks.length - 1;

  const finish = async (note: string) => {
    if (!finished) act.finish(note);
    setBusy(true);
    const sent = await senderFor(start.storeId).flush(4000);
    setBusy(false);
    setSheet(null);
    if (sent) router.push(review);
    else setFinishing("The session is finished and kept on this device. The server does not answer; it is sent as soon as it does.");
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
  return (
    <main className="mx-auto flex min-h-dvh max-w-[430px] flex-col gap-2 px-3 pt-2.5 pb-2 lg:max-w-[1180px] lg:grid lg:grid-cols-[minmax(0,1fr)_430px] lg:grid-rows-[auto_1fr] lg:gap-x-12 lg:px-7 lg:pt-6">
      <header className="grid grid-cols-[1fr_auto] items-baseline gap-x-3 gap-y-1 lg:col-span-2">
        <h1 className="truncate text-xl lg:text-2xl">
          <Link href={`/horses/${start.horse.id}/work`} prefetch={false} className="hover:underline">
            {start.horse.name}
          </Link>
          {block?.side && <span className="ml-2 font-sans text-base font-normal text-soft">{SIDE_WORD[block.side]}</span>}
        </h1>
        <Clock state={state} />
        <div className="flex min-w-0 items-center gap-3">
          <fieldset className="flex shrink-0 rounded border-2 border-ink text-sm" aria-label="Way of logging">
            {(["tally", "timed"] as const).map((w) => (
              <button
                key={w}
                type="button"
                aria-pressed={way === w}
                onClick={() => setWay(w)}
                className={`min-h-9 px-2.5 font-semibold ${way === w ? "bg-ink text-on-ink" : ""}`}
              >
                {w === "tally" ? "Tally" : "Timed"}
              </button>
            ))}
          </fieldset>
          <p className="truncate text-sm text-soft">
            {start.battery ? "item" : "rung"} {rung}
            {!start.battery && block?.kind && KIND_WORD[block.kind] !== "" ? `, ${KIND_WORD[block.kind]}` : ""} · {start.behaviour}
          </p>
          <button
            type="button"
            className="hidden size-9 shrink-0 place-items-center rounded hover:bg-paper lg:grid"
            onClick={() => setSheet("keys")}
            aria-label="Keys"
          >
            <Keyboard size={20} />
          </button>
        </div>
        <Rate state={state} />
      </header>
      <section aria-label="Now" className="flex flex-col gap-1.5 lg:gap-5">
        <p className="text-[1.25rem] leading-tight lg:text-[1.9rem] lg:leading-snug" data-testid="criterion">
          {parts.map((part, i) => (part.strong ? <strong key={`${i}-${part.text}`}>{part.text}</strong> : part.text))}
        </p>
        {/* On a phone the pads need the room where values are counted. */}
        <div className={counting ? "max-lg:hidden" : ""}>
          <LiveRibbon record={record} nowMs={session.nowMs} />
        </div>
        {working && start.battery && <BatteryPanel record={record} limit={limit} onNext={act.takeWord} />}
        {working && advice !== null && <WordPanel advice={advice} rung={rung} onTake={act.takeWord} />}
        {working && <BlockCount state={state} />}
        {working && last?.shortfall != null && !last.overridden && last.blockIndex === record.blocks.length - 1 && (
          <p className="flex items-center justify-between gap-3 border-l-4 border-ochre pl-3 text-sm">
            <span>Counted as a try. {last.shortfall}</span>
            <button type="button" className="link min-h-11 shrink-0" onClick={act.countAsMet}>
              Count it as met
            </button>
          </p>
        )}
        {counting && (
          <Suspense fallback={null}>
            <ValueRow key={`${record.blocks.length}-${record.trials.length}`} plan={start.plan} record={record} onValue={act.value} />
          </Suspense>
        )}
        {working && wantsEase && (
          <fieldset className="flex items-center gap-1.5 text-sm">
            <legend className="sr-only">How the horse was on the last one</legend>
            {EASE_GRADES.map((grade, value) => (
              <button
                key={grade}
                type="button"
                aria-label={`ease ${value}: ${grade}`}
                aria-pressed={last?.ease === value}
                onClick={() => act.grade(value)}
                className={`min-h-11 grow rounded border-2 border-sage px-1 leading-tight ${last?.ease === value ? "bg-sage text-on-tarn" : ""}`}
              >
                {grade}
              </button>
            ))}
          </fieldset>
        )}
        {hint !== null && (
          <p role="alert" className="text-sm font-semibold text-ochre">
            {hint}
          </p>
        )}
      </section>
      <section aria-label="Pads" className="mt-auto contain-layout contain-paint lg:col-start-2 lg:row-start-2 lg:mt-0">
        {finished ? (
          <div className="rounded-lg border-2 border-ink p-5">
            <h2 className="text-2xl">Finished</h2>
            <p className="mt-2">
              {record.trials.length} trials, {clockWords(workSeconds(record))} of work.
            </p>
            {finishing !== null && <p className="mt-2 font-semibold text-brick">{finishing}</p>}
            <Link href={review} prefetch={false} className="act mt-4 w-full">
              To the review
            </Link>
          </div>
        ) : working ? (
          <>
            {(!start.battery || start.zones.length > 0) && <WhereRow zones={start.zones} state={state} touch={!start.battery} />}
            <Pads plan={start.plan} state={state} rung={rung} />
          </>
        ) : (
          <div className="rounded-lg border-2 border-ink p-4">
            <p className="mb-1 font-head text-lg font-bold text-tarn">{start.next.headline}</p>
            <p className="mb-3 text-sm text-soft">{start.next.reason}</p>
            <BlockChooser start={start} first={first} onStart={act.begin} words="Start the block" />
            <div className="mt-3">
              <Cautions cautions={start.cautions} />
            </div>
          </div>
        )}
        <div className="mt-2 flex justify-center">
          <StatusLine storeId={start.storeId} total={session.events.length} keepProblem={session.keepProblem} />
        </div>
      </section>
      <Sheet
        open={sheet === "block"}
        onClose={() => setSheet(null)}
        title="Next block"
        description="The running block ends when this one starts."
      >
        <BlockChooser
          key={record.blocks.length}
          start={start}
          first={{ rung, side: block?.side ?? "L", kind: block?.kind ?? (start.battery ? "probe" : "work") }}
          onStart={act.begin}
          words="Start the block"
        />
      </Sheet>
      <Sheet open={sheet === "finish"} onClose={() => setSheet(null)} title="Finish" description={`${record.trials.length} trials so far.`}>
        <FinishForm onFinish={finish} busy={busy} problem={finishing} />
      </Sheet>
      <Sheet open={sheet === "touch"} onClose={act.closeTouch} title="Touch" description="Tap where, then how it was taken.">
        <Suspense fallback={<p className="text-soft">A moment.</p>}>
          <TouchBoard touches={start.touches} record={record} offLimits={start.allowance.touchOff} onTouch={act.touch} />
        </Suspense>
      </Sheet>
      <Sheet open={sheet === "keys"} onClose={() => setSheet(null)} title="Keys" description="1 to 5 choose the cue.">
        <dl className="grid grid-cols-[5rem_1fr] gap-y-1.5">
          {KEYS.map(({ shown, words }) => (
            <div key={shown} className="contents">
              <dt className="font-semibold">{shown}</dt>
              <dd>{words}</dd>
            </div>
          ))}
        </dl>
      </Sheet>
    </main>
  );
}
