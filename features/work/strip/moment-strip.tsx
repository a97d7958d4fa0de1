"use client";

import { RotateCw } from "lucide-react";
import { type ReactNode, Suspense, useCallback, useEffect, useRef, useState } from "react";
import { calmAsked, MOVEMENT_GRADES } from "@/core/ladder";
import { type Block, barOf, barSentence, type Trial } from "@/core/record";
import { stopsWork } from "@/core/signs";
import { EASE_GRADES, type Strand } from "@/core/strands";
import { lazyPart } from "../lazy-part";
import { useActs, useLog, useNow, useStart } from "../state";
import type { AtWork } from "../types";
import { Lines, type LinesSeen } from "./lines";
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

interface Row {
  readonly key: string /** What it counts, with its unit. */;
  readonly label: ReactNode;
  readonly wanted: boolean;
  readonly row: ReactNode;
}

/** Presses a wrong choice is told by. */
const ABOUT_WRONG: ReadonlySet<string> = new Set(["wrong", "wrong.end"]);

const NO_LINES: LinesSeen = { lines: 1, at: 0 }; /**
 * The row above the pads holds what the moment asks for: the name of a sign,
 * what ended a stay, a value, a grade, or where the horse is. What is not on
 * top is one press away.
 */
export function MomentStrip() {
  const session = useLog();
  const start = useStart();
  const { block, open, way, hint } = useNow();
  const act = useActs();
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
  const rung = Math.min(Number(block?.rung), start.part.plan.rungs.length);
  const calm = start.session.battery
    ? "grades"
    : block?.ladder != null && Number.isInteger(rung) && rung > 0
      ? calmAsked(start.part.plan, rung)
      : block?.criterion?.min_ease === undefined
        ? null
        : "grades";
  const staysNow = asksStay && way === "timed" && open?.lastAnswer === "met" && open !== null;
  const stayed = asksStay && open === null && last?.logged === "tally" && last.value !== null ? last : undefined;
  const told = stayed === undefined || record.facts.some(({ type, ms }) => type === "stay" && ms >= stayed.askMs);
  const bar = counted?.percentile !== undefined;

  const rows: Row[] = [];
  const short = last?.shortfall != null && !last.overridden ? last.shortfall : null;
  if (hint !== null)
    rows.push({
      key: `hint ${hint}`,
      label: "",
      wanted: true,
      row: (
        <p role="alert" className="text-[0.85rem] leading-tight font-semibold text-ochre desk:text-base">
          {hint}
        </p>
      ),
    });
  if (sign !== undefined && fresh === sign.id && !stopsWork(sign.payload.class))
    rows.push({
      key: "sign",
      label: `which sign of ${sign.payload.class}`,
      wanted: sign.payload.name === sign.payload.class,
      row: <SignalNames fact={sign} onName={act.nameSignal} />,
    });
  if (staysNow) rows.push({ key: "staying", label: "what ended the stay", wanted: true, row: <StayReasons seconds={null} /> });
  else if (stayed !== undefined)
    rows.push({
      key: "stayed",
      label: "what ended the stay, how far off you were, m",
      wanted: !told,
      row: <StayReasons key={stayed.eventId} seconds={stayed.value} />,
    });
  if (counting) {
    const own = record.trials.filter(({ blockIndex }) => blockIndex === inBlock);
    const now = block?.criterion == null ? null : barOf(block.criterion, block, own);
    const strand = start.part.plan.strands.find(({ id }) => id === start.part.plan.workingStrandId);
    const unit = counted.unit === "" ? "" : `, ${counted.unit}`;
    rows.push({
      key: "value",
      label:
        now === null ? (
          `${strand?.name ?? counted.strand} of the last one${unit}`
        ) : (
          <strong className="text-ochre" data-testid="bar">
            {barSentence(now, counted)}
          </strong>
        ),
      wanted: bar || (last !== undefined && last.value === null),
      row: <ValueRow key={`${record.blocks.length}-${record.trials.length}`} plan={start.part.plan} record={record} onValue={act.value} />,
    });
  }
  if (calm === "soft" && last !== undefined)
    rows.push({
      key: "calm",
      label: last.ease === null ? "calm not said" : "calm of the last one",
      wanted: last.ease === null && last.tapped !== "refused",
      row: <CalmRow grade={last.ease} onCalm={act.calm} />,
    });
  if (calm === "grades" && last !== undefined)
    rows.push({
      key: "ease",
      label: last.ease === null ? "calm not said" : "ease of the last one",
      wanted: last.ease === null,
      row: <GradeRow what="ease" label="How the horse was on the last one" words={EASE_GRADES} grade={last.ease} onGrade={act.grade} />,
    });
  const { min_movement, movement } = block?.criterion ?? {};
  if (min_movement !== undefined && last !== undefined)
    rows.push({
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
    });
  // A wrong choice is named right after it; a sign that follows it takes its place.
  const wrong = lastPress !== undefined && ABOUT_WRONG.has(lastPress.type) ? record.timeLine.wrongs.at(-1) : undefined;
  if (wrong !== undefined)
    rows.push({
      key: `wrong ${wrong.eventId}`,
      label: "the last wrong choice",
      // Also where the plan's own words stand for it: this is the moment it can be said otherwise.
      wanted: true,
      row: <WrongRow choice={wrong} />,
    });
  const talks = start.part.plan.conversation;
  if ((talks?.pinned?.length ?? 0) + (talks?.acts?.length ?? 0) + start.today.pinned.length > 0)
    rows.push({ key: "conversation", label: "signs, and what you do", wanted: false, row: <ConversationRow /> });
  if (short !== null)
    rows.push({
      key: `short ${last?.eventId}`,
      label: <strong className="text-ochre">counted as a try</strong>,
      wanted: true,
      row: <Shortfall words={short} reward={rewardWords(last)} onCount={act.countAsMet} />,
    });
  const free = isFree(start, block);
  const moving = free || record.facts.some(({ type }) => type === "gait");
  const numbers = (
    <Suspense fallback={null}>
      <FreeNumbers />
    </Suspense>
  );
  rows.push({
    key: "free",
    label: moving ? numbers : "gait, direction, circle in m",
    wanted: free,
    row: <FreeStrip looks={looks} />,
  });
  if (!start.session.battery || start.session.zones.length > 0)
    rows.push({
      key: "where",
      label: moving ? numbers : "where the horse is",
      wanted: false,
      row: <WhereRow zones={start.session.zones} touch={!start.session.battery} />,
    });

  // What is wanted comes first; at rest, and where the work is not free, the places come before the gaits.
  const order = [...rows.filter(({ wanted }) => wanted), ...rows.filter(({ wanted, key }) => !wanted && (key !== "free" || free))];
  if (!free) order.push(...rows.filter(({ key, wanted }) => key === "free" && !wanted));
  // What the ladder or the horse is watched for stands there at rest, otherwise the places.
  const watched = order.findIndex(({ key }) => key === "conversation");
  const rest = watched >= 0 ? watched : order.findIndex(({ key }) => key === "where");
  const resting = order.every(({ wanted }) => !wanted) && rest > 0 ? [...order.slice(rest), ...order.slice(0, rest)] : order;
  const top = resting[0]?.key ?? "";
  // A fresh need comes back to the top of the turning.
  useEffect(() => {
    if (top !== "") setTurned(0);
  }, [top]);
  const shown = resting[turned % resting.length];
  const box = useRef<HTMLDivElement>(null);
  const [seen, setSeen] = useState(NO_LINES);
  const onSeen = useCallback((next: LinesSeen) => setSeen((had) => (had.lines === next.lines && had.at === next.at ? had : next)), []);
  const key = shown?.key;
  useEffect(() => {
    if (key !== undefined) box.current?.scrollTo(0, 0);
  }, [key]);
  /** The next line of this row, then the next row. */
  const turn = () => {
    const element = box.current;
    if (element !== null && seen.at < seen.lines - 1) {
      // Lines are as far apart as the pads in them: the first below what is in sight.
      const edge = element.getBoundingClientRect().bottom - 1;
      const below = [...element.querySelectorAll<HTMLElement>("button, select, p")].find((one) => one.getBoundingClientRect().top > edge);
      if (below !== undefined) {
        element.scrollTop += below.getBoundingClientRect().top - element.getBoundingClientRect().top;
        return;
      }
    }
    element?.scrollTo(0, 0);
    setTurned(turned + 1);
  };
  return (
    <div className="min-w-0">
      <div className="flex min-h-4 items-baseline gap-2 text-[0.8rem] leading-tight text-soft" data-testid="row-label">
        <span className="min-w-0">
          {short !== null && !shown?.key.startsWith("short") && <strong className="text-ochre">counted as a try · </strong>}
          {shown?.label}
        </span>
        {seen.lines > 1 && (
          <span className="figures ml-auto shrink-0">
            {seen.at + 1} of {seen.lines}
          </span>
        )}
      </div>
      <div className="flex min-w-0 items-end gap-1.5">
        <div className="min-w-0 grow" data-row={shown?.key.replace(/ .*/, "")}>
          <Lines box={box} onSeen={onSeen}>
            <Suspense fallback={<div className="min-h-11" />}>{shown?.row}</Suspense>
          </Lines>
        </div>
        {(resting.length > 1 || seen.lines > 1) && (
          <button
            type="button"
            aria-label="another row"
            onClick={turn}
            className="grid h-(--line) w-11 shrink-0 place-items-center rounded-lg border-2 border-hair desk:h-12"
          >
            <RotateCw size={18} aria-hidden="true" />
          </button>
        )}
      </div>
    </div>
  );
}
