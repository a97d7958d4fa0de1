"use client";

import { Suspense, useEffect, useMemo } from "react";
import { beginningSide } from "@/core/advice";
import { batteryPlace, FIRST_LOOK_STEPS } from "@/core/know";
import { openDanger, openStopSign } from "@/core/record";
import { type PackedStart, unpackStart } from "@/core/start/wire";
import { afterPaint } from "@/ui/after-paint";
import { useWakeLock } from "../device/wake-lock";
import { useTold } from "../sound/use-told";
import { stepChoice } from "./acts/begin-acts";
import type { FinishNotes } from "./acts/session-acts";
import { AroundWork } from "./around-work";
import { coachOf } from "./coach-line";
import { InWork } from "./in-work";
import { useKeys } from "./keys/use-keys";
import { fetchParts, lazyPart } from "./lazy-part";
import { stageOf } from "./stage";
import { RecorderParts, useLog } from "./state";
import type { BlockChoice, Side } from "./types";
import { useCriterion } from "./use-criterion";
import { useNextFocus } from "./use-next-focus";
import { type RecorderState, useRecorder } from "./use-recorder";

// Whatever is not on the screen from the first moment comes after it, but before it is opened: the pen may be offline.
const Sheets = lazyPart(() => import("./sheets/sheets").then(({ Sheets }) => Sheets));
const StopCard = lazyPart(() => import("./sheets/stop-card").then(({ StopCard }) => StopCard));

/** The stop card, where a danger sign was not answered yet. */
function Danger() {
  const { record } = useLog();
  const fact = openDanger(record) === null ? null : openStopSign(record);
  if (fact === null) return null;
  return (
    <Suspense fallback={null}>
      <StopCard key={fact.id} fact={fact} />
    </Suspense>
  );
}

/** The block that comes next, and the one that ran once more. */
function choices({ start, session, block }: RecorderState, rung: number): { first: BlockChoice; again: BlockChoice } {
  const { battery } = start.session;
  // After a block the other side is offered; before the first the plan may say which.
  const other: Side = block === null ? (beginningSide(start.part.plan, start.part.earlier) ?? "L") : block.side === "L" ? "R" : "L";
  const step = battery ? FIRST_LOOK_STEPS[batteryPlace(session.record).next ?? 0] : undefined;
  return {
    first: step === undefined ? { rung, side: other, kind: start.part.next.kind } : stepChoice(step),
    again: { rung, side: block?.side ?? "L", kind: battery ? "probe" : "work" },
  };
}

/** The recorder: one screen at work, one around it, and what lies over them. */
export function Recorder({
  packed,
  chain = null,
}: {
  packed: PackedStart;
  /** The chain whose run it was begun for, by its id. */
  chain?: string | null;
}) {
  const given = useMemo(() => unpackStart(packed), [packed]);
  const state = useRecorder(given);
  const { start, session, advice, block, silent, act, setSheet } = state;
  const { record } = session;
  const stage = stageOf(start, { ready: session.ready, silent, record });
  const working = stage === "work";
  useKeys(state);
  const looked = record.facts.some(({ type }) => type === "preflight");
  // Opening the page moves no focus; what comes after it does.
  const focusStage = working ? `block ${record.blocks.length}` : stage === "finished" ? stage : looked ? "looked" : "";
  useNextFocus(state.sheet === null ? focusStage : "");
  // Begun on a chain's page: the run lies open once the look-over is done.
  const runOpens = chain !== null && looked && record.blocks.length === 0 && record.finishMs === null;
  useEffect(() => {
    if (runOpens) setSheet("run");
  }, [runOpens, setSheet]);
  useWakeLock(working);
  useEffect(() => afterPaint(fetchParts), []);
  const criterion = useCriterion(state);
  const coach = working ? coachOf({ start, session, block }, criterion.rung) : null;
  const schedule = block?.criterion?.schedule;
  useTold(record, advice, coach !== null && schedule !== undefined && schedule.kind !== "every" ? coach.nextEarns : null, working);

  if (stage === "reading") return <main className="p-6 text-soft">Reading what this device has kept.</main>;
  const { first, again } = choices(state, criterion.rung);
  const finish = (notes: FinishNotes) => {
    if (record.finishMs === null) act.finish(notes);
    setSheet(null);
  };
  const over = (
    <>
      {state.sheet !== null && (
        <Suspense fallback={null}>
          <Sheets first={again} chain={chain} onFinish={finish} />
        </Suspense>
      )}
      <Danger />
    </>
  );
  return (
    <RecorderParts state={state}>
      {stage === "work" ? (
        <InWork criterion={criterion} coach={coach}>
          {over}
        </InWork>
      ) : (
        <AroundWork stage={stage} criterion={criterion} first={first} again={again}>
          {over}
        </AroundWork>
      )}
    </RecorderParts>
  );
}
