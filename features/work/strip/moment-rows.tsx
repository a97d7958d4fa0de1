"use client";

import { type ReactNode, Suspense, useEffect, useState } from "react";
import { calmAsked, MOVEMENT_GRADES } from "@/core/ladder";
import { type Block, barOf, barSentence, type SessionRecord, type Trial } from "@/core/record";
import { stopsWork } from "@/core/signs";
import { EASE_GRADES, type Strand } from "@/core/strands";
import { lazyPart } from "../lazy-part";
import { useActs, useLog, useNow, useStart } from "../state";
import type { AtWork } from "../types";
import type { RecorderState } from "../use-recorder";
import { useLooks } from "./use-looks";

/** The values of a counted strand, only where there is one to count. */
const ValueRow = lazyPart(() => import("./value-row").then(({ ValueRow }) => ValueRow));

const SignalNames = lazyPart(() => import("./signal-names").then(({ SignalNames }) => SignalNames));
const StayReasons = lazyPart(() => import("./stay-reasons").then(({ StayReasons }) => StayReasons));
const FreeStrip = lazyPart(() => import("./free-strip").then(({ FreeStrip }) => FreeStrip));
const FreeNumbers = lazyPart(() => import("./free-strip").then(({ FreeNumbers }) => FreeNumbers));

const ConversationRow = lazyPart(() => import("./conversation-row").then(({ ConversationRow }) => ConversationRow));
const GradeRow = lazyPart(() => import("./grade-row").then(({ GradeRow }) => GradeRow));
const CalmRow = lazyPart(() => import("./calm-row").then(({ CalmRow }) => CalmRow));
const WhereRow = lazyPart(() => import("./where-row").then(({ WhereRow }) => WhereRow));
const WrongRow = lazyPart(() => import("./wrong-row").then(({ WrongRow }) => WrongRow));

const NAME_WITHIN_MS = 8000;

/** Whether the rung is worked without a line. */
function isFree(start: AtWork, block: Block | null): boolean {
  const tether = start.part.plan.strands.find(({ key }: Strand) => key === "tether");
  const value = tether === undefined ? undefined : start.part.plan.rungs[Number(block?.rung) - 1]?.values[tether.id];
  return start.part.behaviourInput.free || (typeof value === "string" && value.startsWith("free"));
}

/** What an answer that fell short got, in Tally, where the pad does not say it. */
function rewardWords(last: Trial | undefined): string {
  if (last?.logged !== "tally") return "";
  return last.reinforced ? "It was rewarded all the same: a slip." : "Not rewarded.";
}

/** Where the last answer fell short of its rung, with the press that overrides it. */
function Shortfall({ words, reward, onCount }: { words: string; reward: string; onCount: () => void }) {
  return (
    <p className="flex w-full items-center justify-between gap-2 text-[0.85rem] leading-tight">
      <span>
        {words} {reward}
      </span>
      <button type="button" className="act-quiet min-h-11! shrink-0 px-2! leading-tight" onClick={onCount}>
        Count it as met
      </button>
    </p>
  );
}

/** One row of what the moment may ask for. */
export interface Row {
  readonly key: string;
  /** What it counts, with its unit. */
  readonly label: ReactNode;
  /** Whether the moment asks for it. */
  readonly wanted: boolean;
  readonly row: ReactNode;
}

/** Presses a wrong choice is told by. */
const ABOUT_WRONG: ReadonlySet<string> = new Set(["wrong", "wrong.end"]);

/** What the rows are made of. */
interface Moment {
  readonly start: AtWork;
  readonly record: SessionRecord;
  readonly act: RecorderState["act"];
  readonly now: Pick<RecorderState, "block" | "open" | "way" | "hint">;
  /** The last answer of this block. */
  readonly last: Trial | undefined;
  /** The sign that was tapped a moment ago, by its id. */
  readonly fresh: string | null;
}

/** How calm is asked at this moment: soft or not, by grades, or not at all. */
function calmNow({ start, now: { block } }: Moment) {
  if (start.session.battery) return "grades";
  const rung = Math.min(Number(block?.rung), start.part.plan.rungs.length);
  if (block?.ladder != null && Number.isInteger(rung) && rung > 0) return calmAsked(start.part.plan, rung);
  return block?.criterion?.min_ease === undefined ? null : "grades";
}

/** A sign may change the word, which is logged after it: that is no press. */
const lastPressOf = (record: SessionRecord) => record.facts.findLast(({ type }) => type !== "word");

/** What was said or happened a moment ago: a hint, which sign it was. */
function* noticeRows({ record, act, now: { hint }, fresh }: Moment): Generator<Row> {
  if (hint !== null)
    yield {
      key: `hint ${hint}`,
      label: "",
      wanted: true,
      row: (
        <p role="alert" className="text-[0.85rem] leading-tight font-semibold text-ochre desk:text-base">
          {hint}
        </p>
      ),
    };
  const press = lastPressOf(record);
  if (press?.type === "signal" && fresh === press.id && !stopsWork(press.payload.class))
    yield {
      key: "sign",
      label: `which sign of ${press.payload.class}`,
      wanted: press.payload.name === press.payload.class,
      row: <SignalNames fact={press} onName={act.nameSignal} />,
    };
}

/** What ended a stay, and how far off the handler was. */
function* stayRows({ record, now: { block, open, way }, last }: Moment): Generator<Row> {
  if (block?.criterion?.stay_s === undefined) return;
  if (way === "timed" && open !== null && open.lastAnswer === "met")
    yield { key: "staying", label: "what ended the stay", wanted: true, row: <StayReasons seconds={null} /> };
  else if (open === null && last?.logged === "tally" && last.value !== null)
    yield {
      key: "stayed",
      label: "what ended the stay, how far off you were, m",
      wanted: !record.facts.some(({ type, ms }) => type === "stay" && ms >= last.askMs),
      row: <StayReasons key={last.eventId} seconds={last.value} />,
    };
}

/** The value of a counted strand, and the bar that follows it. */
function* valueRows({ start, record, act, now: { block }, last }: Moment): Generator<Row> {
  const working = block?.criterion?.working;
  if (block == null || block.criterion === null || working === undefined) return;
  const bar = working.percentile !== undefined;
  if (block.criterion.stay_s !== undefined && !bar) return;
  const own = record.trials.filter(({ blockIndex }) => blockIndex === record.blocks.length - 1);
  const set = barOf(block.criterion, block, own);
  const strand = start.part.plan.strands.find(({ id }) => id === start.part.plan.workingStrandId);
  const unit = working.unit === "" ? "" : `, ${working.unit}`;
  yield {
    key: "value",
    label:
      set === null ? (
        `${strand?.name ?? working.strand} of the last one${unit}`
      ) : (
        <strong className="text-ochre" data-testid="bar">
          {barSentence(set, working)}
        </strong>
      ),
    wanted: bar || (last !== undefined && last.value === null),
    row: <ValueRow key={`${record.blocks.length}-${record.trials.length}`} plan={start.part.plan} record={record} onValue={act.value} />,
  };
}

/** How the horse was and how it moved on the last answer. */
function* gradeRows(moment: Moment): Generator<Row> {
  const { act, last, now } = moment;
  if (last === undefined) return;
  const calm = calmNow(moment);
  if (calm === "soft")
    yield {
      key: "calm",
      label: last.ease === null ? "calm not said" : "calm of the last one",
      wanted: last.ease === null && last.tapped !== "refused",
      row: <CalmRow grade={last.ease} onCalm={act.calm} />,
    };
  if (calm === "grades")
    yield {
      key: "ease",
      label: last.ease === null ? "calm not said" : "calm of the last one",
      wanted: last.ease === null,
      row: <GradeRow what="ease" label="How the horse was on the last one" words={EASE_GRADES} grade={last.ease} onGrade={act.grade} />,
    };
  const { min_movement: asked, movement } = now.block?.criterion ?? {};
  if (asked !== undefined)
    yield {
      key: "movement",
      label: "movement of the last one",
      wanted: last.movement === null,
      row: (
        <GradeRow
          what="movement"
          label="How it moved on the last one"
          words={movement ?? MOVEMENT_GRADES}
          grade={last.movement}
          onGrade={act.movement}
        />
      ),
    };
}

/** The last wrong choice, named right after it; a sign that follows it takes its place. */
function* wrongRows({ record }: Moment): Generator<Row> {
  const press = lastPressOf(record);
  const wrong = press !== undefined && ABOUT_WRONG.has(press.type) ? record.timeLine.wrongs.at(-1) : undefined;
  // Also where the plan's own words stand for it: this is the moment it can be said otherwise.
  if (wrong !== undefined)
    yield { key: `wrong ${wrong.eventId}`, label: "the last wrong choice", wanted: true, row: <WrongRow choice={wrong} /> };
}

/** What is watched for, and where the last answer fell short of its rung. */
function* otherRows({ start, act, last }: Moment): Generator<Row> {
  const talks = start.part.plan.conversation;
  if ((talks?.pinned?.length ?? 0) + (talks?.acts?.length ?? 0) + start.today.pinned.length > 0)
    yield { key: "conversation", label: "signs, and what you do", wanted: false, row: <ConversationRow /> };
  const short = shortOf(last);
  if (short !== null)
    yield {
      key: `short ${last?.eventId}`,
      label: <strong className="text-ochre">counted as a try</strong>,
      wanted: true,
      row: <Shortfall words={short} reward={rewardWords(last)} onCount={act.countAsMet} />,
    };
}

/** Where the last answer fell short, unless it was counted all the same. */
const shortOf = (last: Trial | undefined): string | null => (last?.shortfall != null && !last.overridden ? last.shortfall : null);

/** The horse going: gait, direction, circle; and where it is. */
function* placeRows({ start, record, now: { block } }: Moment, looks: ReturnType<typeof useLooks>): Generator<Row> {
  const free = isFree(start, block);
  const moving = free || record.facts.some(({ type }) => type === "gait");
  const numbers = (
    <Suspense fallback={null}>
      <FreeNumbers />
    </Suspense>
  );
  yield {
    key: "free",
    label: moving ? numbers : "gait, direction, circle in m",
    wanted: free,
    row: <FreeStrip looks={looks} />,
  };
  if (!start.session.battery || start.session.zones.length > 0)
    yield {
      key: "where",
      label: moving ? numbers : "where the horse is",
      wanted: false,
      row: <WhereRow zones={start.session.zones} touch={!start.session.battery} />,
    };
}

/**
 * The rows in the order in which they are turned: what is wanted first; then,
 * where the work is not free, the places before the gaits. At rest what the
 * ladder or the horse is watched for stands on top, otherwise the places.
 */
export function inTurn(rows: readonly Row[]): readonly Row[] {
  const free = rows.some(({ key, wanted }) => key === "free" && wanted);
  const rest = rows.filter(({ wanted }) => !wanted);
  const order = [
    ...rows.filter(({ wanted }) => wanted),
    ...rest.filter(({ key }) => key !== "free" || free),
    ...(free ? [] : rest.filter(({ key }) => key === "free")),
  ];
  if (order.some(({ wanted }) => wanted)) return order;
  const watched = order.findIndex(({ key }) => key === "conversation");
  const top = watched >= 0 ? watched : order.findIndex(({ key }) => key === "where");
  return top > 0 ? [...order.slice(top), ...order.slice(0, top)] : order;
}

/** The sign that was tapped a moment ago, for as long as it is asked which one it was. */
function useFreshSign(record: SessionRecord): string | null {
  const press = lastPressOf(record);
  const id = press?.type === "signal" ? press.id : null;
  const [fresh, setFresh] = useState<string | null>(null);
  useEffect(() => {
    setFresh(id);
    if (id === null) return;
    const timer = setTimeout(() => setFresh(null), NAME_WITHIN_MS);
    return () => clearTimeout(timer);
  }, [id]);
  return fresh;
}

/** What the moment asks for, in the order in which it is turned, and whether the last answer fell short. */
export function useMomentRows(): { readonly rows: readonly Row[]; readonly short: boolean } {
  const { record } = useLog();
  const start = useStart();
  const now = useNow();
  const act = useActs();
  const looks = useLooks();
  const fresh = useFreshSign(record);
  const newest = record.trials.at(-1);
  const last = newest?.blockIndex === record.blocks.length - 1 ? newest : undefined;
  const moment: Moment = { start, record, act, now, last, fresh };
  const rows = [
    ...noticeRows(moment),
    ...stayRows(moment),
    ...valueRows(moment),
    ...gradeRows(moment),
    ...wrongRows(moment),
    ...otherRows(moment),
    ...placeRows(moment, looks),
  ];
  return { rows: inTurn(rows), short: shortOf(last) !== null };
}
