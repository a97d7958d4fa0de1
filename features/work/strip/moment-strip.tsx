"use client";

import { RotateCw } from "lucide-react";
import { type ReactNode, Suspense, useEffect, useState } from "react";
import { EASE_GRADES, type Strand } from "@/core/strands";
import { lazyPart } from "../lazy-part";
import type { RecorderState } from "../use-recorder";
import { SignalNames } from "./signal-names";
import { StayReasons } from "./stay-reasons";
import { useLooks } from "./use-looks";
import { WhereRow } from "./where-row";

/** The values of a counted strand, only where there is one to count. */
const ValueRow = lazyPart(() => import("./value-row").then(({ ValueRow }) => ValueRow));

const FreeStrip = lazyPart(() => import("./free-strip").then(({ FreeStrip }) => FreeStrip));
const FreeNumbers = lazyPart(() => import("./free-strip").then(({ FreeNumbers }) => FreeNumbers));

const NAME_WITHIN_MS = 8000;

/** Whether the rung is worked without a line. */
function isFree({ start, block }: RecorderState): boolean {
  const tether = start.plan.strands.find(({ key }: Strand) => key === "tether");
  const value = tether === undefined ? undefined : start.plan.rungs[Number(block?.rung) - 1]?.values[tether.id];
  return start.behaviourInput.free || (typeof value === "string" && value.startsWith("free"));
}

/** A grade of ease for the last answer. */
function EaseRow({ state, ease }: { state: RecorderState; ease: number | null }) {
  return (
    <fieldset className="flex items-center gap-1.5 text-sm">
      <legend className="sr-only">How the horse was on the last one</legend>
      {EASE_GRADES.map((grade, value) => (
        <button
          key={grade}
          type="button"
          aria-label={`ease ${value}: ${grade}`}
          aria-pressed={ease === value}
          onClick={() => state.act.grade(value)}
          className={`min-h-12 grow rounded border-2 border-sage px-1 leading-tight ${ease === value ? "bg-sage text-on-tarn" : ""}`}
        >
          {grade}
        </button>
      ))}
    </fieldset>
  );
}

/**
 * The row above the pads holds what the moment asks for: the name of a sign,
 * what ended a stay, a value, a grade, or where the horse is. What is not on
 * top is one press away.
 */
export function MomentStrip({ state }: { state: RecorderState }) {
  const { session, start, block, open, way, act } = state;
  const { record } = session;
  const [turned, setTurned] = useState(0);
  const looks = useLooks();
  const inBlock = record.blocks.length - 1;
  const last = record.trials.at(-1)?.blockIndex === inBlock ? record.trials.at(-1) : undefined;
  // A sign may change the word, which is logged after it: that is no press.
  const lastPress = record.facts.findLast(({ type }) => type !== "word");
  const sign = lastPress?.type === "signal" ? lastPress : undefined;
  const [fresh, setFresh] = useState<string | null>(null);
  const signId = sign?.id ?? null;
  useEffect(() => {
    setFresh(signId);
    if (signId === null) return;
    const timer = setTimeout(() => setFresh(null), NAME_WITHIN_MS);
    return () => clearTimeout(timer);
  }, [signId]);

  const counted = block?.criterion?.working;
  const asksStay = block?.criterion?.stay_s !== undefined;
  const counting = counted !== undefined && (!asksStay || counted.percentile !== undefined);
  const graded = start.battery || block?.criterion?.min_ease !== undefined;
  const staysNow = asksStay && way === "timed" && open?.lastAnswer === "met" && open !== null;
  const stayed = asksStay && open === null && last?.logged === "tally" && last.value !== null ? last : undefined;
  const told = stayed === undefined || record.facts.some(({ type, ms }) => type === "stay" && ms >= stayed.askMs);
  const bar = counted?.percentile !== undefined;

  const rows: { key: string; wanted: boolean; row: ReactNode }[] = [];
  if (sign !== undefined && fresh === sign.id && sign.payload.class !== "danger")
    rows.push({ key: "sign", wanted: sign.payload.name === sign.payload.class, row: <SignalNames fact={sign} onName={act.nameSignal} /> });
  if (staysNow) rows.push({ key: "staying", wanted: true, row: <StayReasons state={state} seconds={null} /> });
  else if (stayed !== undefined)
    rows.push({ key: "stayed", wanted: !told, row: <StayReasons key={stayed.eventId} state={state} seconds={stayed.value} /> });
  if (counting)
    rows.push({
      key: "value",
      wanted: bar || (last !== undefined && last.value === null),
      row: <ValueRow key={`${record.blocks.length}-${record.trials.length}`} plan={start.plan} record={record} onValue={act.value} />,
    });
  if (graded && last !== undefined) rows.push({ key: "ease", wanted: last.ease === null, row: <EaseRow state={state} ease={last.ease} /> });
  const free = isFree(state);
  rows.push({ key: "free", wanted: free, row: <FreeStrip state={state} looks={looks} /> });
  if (!start.battery || start.zones.length > 0)
    rows.push({ key: "where", wanted: false, row: <WhereRow zones={start.zones} state={state} touch={!start.battery} /> });

  // What is wanted comes first; at rest, and where the work is not free, the places come before the gaits.
  const order = [...rows.filter(({ wanted }) => wanted), ...rows.filter(({ wanted, key }) => !wanted && (key !== "free" || free))];
  if (!free) order.push(...rows.filter(({ key, wanted }) => key === "free" && !wanted));
  const rest = order.findIndex(({ key }) => key === "where");
  const resting = order.every(({ wanted }) => !wanted) && rest > 0 ? [...order.slice(rest), ...order.slice(0, rest)] : order;
  const top = resting[0]?.key ?? "";
  // A fresh need comes back to the top of the turning.
  useEffect(() => {
    if (top !== "") setTurned(0);
  }, [top]);
  const shown = resting[turned % resting.length];
  return (
    <div className="grid min-w-0 gap-1.5">
      {(free || shown?.key === "free" || record.facts.some(({ type }) => type === "gait")) && (
        <Suspense fallback={null}>
          <FreeNumbers state={state} />
        </Suspense>
      )}
      <div className="flex min-w-0 items-end gap-1.5">
        <div className="min-w-0 grow" data-row={shown?.key}>
          <Suspense fallback={<div className="min-h-12" />}>{shown?.row}</Suspense>
        </div>
        {resting.length > 1 && (
          <button
            type="button"
            aria-label="another row"
            onClick={() => setTurned(turned + 1)}
            className="grid min-h-12 w-11 shrink-0 place-items-center rounded-lg border-2 border-hair"
          >
            <RotateCw size={18} aria-hidden="true" />
          </button>
        )}
      </div>
    </div>
  );
}
