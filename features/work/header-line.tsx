"use client";

import { Flag, Keyboard } from "lucide-react";
import { useEffect, useState } from "react";
import { PART_WORDS } from "@/core/events/parts";
import { type SessionRecord, workSeconds } from "@/core/record";
import { clockWords } from "@/ui/measure";
import { OutcomeSign } from "@/ui/ribbon";
import { WayLink } from "@/ui/way";
import { useLog, useNow, useScreen, useStart } from "./state";

const SIDE_WORD = { L: "left side", R: "right side" } as const;
const KIND_WORD = { work: "", "warm-up": "warm-up", probe: "probe", sure: "easy one" } as const;

function useEachSecond() {
  const [, tick] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => tick((n) => n + 1), 1000);
    return () => clearInterval(timer);
  }, []);
}

/** The session's clock; with the rate it alone repaints each second. */
function Clock() {
  const session = useLog();
  const { onBreak } = useNow();
  useEachSecond();
  const { record, nowMs } = session;
  return (
    <span className="figures text-right font-head text-2xl leading-none font-bold" suppressHydrationWarning data-testid="clock">
      {onBreak && <span className="mr-1 font-sans text-sm font-semibold text-ochre">break</span>}
      {clockWords(workSeconds(record, nowMs()))}
    </span>
  );
}

/** The working rate: met answers a minute of working time. */
function Rate() {
  const session = useLog();
  useEachSecond();
  const { record, nowMs } = session;
  const seconds = workSeconds(record, nowMs());
  const met = record.trials.filter((trial) => trial.outcome === "met").length;
  return (
    <span
      // On the narrowest screen the name needs its room more; the count stands below and the rate in the review.
      className="figures text-right text-[0.85rem] leading-tight whitespace-nowrap text-soft max-[359px]:hidden"
      suppressHydrationWarning
    >
      {seconds < 20 ? "–" : ((met * 60) / seconds).toFixed(1)} met a minute
    </span>
  );
}

/** How many signs stand beside the count on the narrowest screen. */
const SIGNS = 7;
const STEP = 21;

/** The trials of this block as signs, with the count against the plan. */
export function BlockCount() {
  const { block } = useNow();
  const session = useLog();
  const { record } = session;
  const index = record.blocks.length - 1;
  const trials = block === null ? [] : record.trials.filter((trial) => trial.blockIndex === index);
  const met = trials.filter((trial) => trial.outcome === "met").length;
  const shown = trials.slice(-SIGNS);
  return (
    <div className="flex min-h-6 shrink-0 items-center justify-between gap-2">
      <svg
        width={SIGNS * STEP}
        height="22"
        className="shrink-0"
        role="img"
        aria-label={`This block: ${trials.map((t) => t.outcome).join(", ") || "no trials yet"}`}
      >
        {shown.map((trial, i) => (
          <g key={trial.eventId} transform={`translate(${10 + i * STEP} 11)`}>
            <OutcomeSign outcome={trial.outcome} radius={7.5} stroke={2.2} />
          </g>
        ))}
        {shown.length < SIGNS && (
          <circle cx={10 + shown.length * STEP} cy="11" r="7.5" fill="none" stroke="var(--hair)" strokeWidth="2" strokeDasharray="3 3" />
        )}
      </svg>
      <span className="figures flex flex-wrap justify-end gap-x-1 text-right text-sm leading-tight">
        <span className="whitespace-nowrap" data-testid="block-count">
          {met} met of {trials.length}
          {block?.planned != null && <span className="text-soft"> · plan {block.planned}</span>}
        </span>
        {record.offers > 0 && <span className="whitespace-nowrap text-soft">· {record.offers} offered</span>}
      </span>
    </div>
  );
}

/** Whether the horse was found not sound in the look before work, and nothing since says otherwise. */
const notSound = ({ facts }: SessionRecord) => {
  const looked = facts
    .filter((fact) => fact.type === "preflight")
    .findLast(({ payload }) => payload.skipped === false && payload.open !== undefined);
  return looked?.payload.open?.includes("sound") === true;
};

/** What is drawn small in the head is reached by a finger as far as 44 pixels. */
const REACH = "relative after:absolute after:-inset-y-1.5 after:inset-x-0 after:content-['']";

/** Horse, way of logging, finish and clock; side, rung, behaviour and rate below. */
export function HeaderLine({ rung, className }: { rung: number; className: string }) {
  const start = useStart();
  const { block, way, setWay } = useNow();
  const { setSheet, plain } = useScreen();
  const session = useLog();
  const { record } = session;
  const kind = !start.session.battery && block?.kind ? KIND_WORD[block.kind] : "";
  const named = block !== null && block.ladder === null && !start.session.battery;
  const where = [
    ...(block?.side ? [SIDE_WORD[block.side]] : []),
    ...(named ? [] : [`${start.session.battery ? "item" : "rung"} ${rung}`]),
    ...(kind === "" ? [] : [kind]),
    ...(session.part === undefined ? [] : [PART_WORDS[session.part]]),
  ].join(" · ");
  return (
    <header className={`${className} grid grid-cols-[minmax(0,1fr)_auto_auto] items-center gap-x-2 gap-y-0.5`}>
      <h1
        // A long name takes two lines beside the ways of logging rather than being cut.
        className={`line-clamp-2 min-w-0 leading-none break-words desk:text-2xl! ${start.session.horse.name.length > 9 ? "text-[0.9rem]" : "text-[1.1rem]"}`}
        title={start.session.horse.name}
      >
        <WayLink href={`/horses/${start.session.horse.id}/work`} className="hover:underline">
          {start.session.horse.name}
        </WayLink>
      </h1>
      <div className="flex items-center gap-2 max-[359px]:gap-1.5">
        <fieldset hidden={plain} className="flex shrink-0 rounded border-2 border-ink text-sm" aria-label="Way of logging">
          {(["tally", "timed"] as const).map((w) => (
            <button
              key={w}
              type="button"
              aria-pressed={way === w}
              aria-keyshortcuts="c"
              onClick={() => setWay(w)}
              className={`min-h-8 px-2 font-semibold max-[359px]:px-1 ${REACH} desk:min-h-9 desk:px-2.5 ${way === w ? "bg-ink text-on-ink" : ""}`}
            >
              {w === "tally" ? "Tally" : "Timed"}
            </button>
          ))}
        </fieldset>
        {record.blocks.length > 0 && record.finishMs === null && (
          <button
            type="button"
            // Its reach is counted from inside its border.
            className={`relative grid size-8 shrink-0 place-items-center rounded border-2 border-ink after:absolute after:-inset-2 after:place-self-stretch after:content-[''] ${plain ? "" : "desk:hidden"}`}
            onClick={() => setSheet("finish")}
            aria-label="finish"
            aria-keyshortcuts="q"
          >
            <Flag size={18} aria-hidden="true" />
          </button>
        )}
        <button
          type="button"
          className="hidden size-9 shrink-0 place-items-center rounded hover:bg-paper desk:grid"
          onClick={() => setSheet("keys")}
          aria-label="Keys"
        >
          <Keyboard size={20} />
        </button>
      </div>
      <Clock />
      <p className="col-span-2 min-w-0 text-[0.85rem] max-[359px]:col-span-3 leading-tight text-soft" data-testid="where">
        {notSound(record) && <strong className="mr-2 text-brick">Not sound: no work, call a veterinarian.</strong>}
        {where}
        <span className="pen-behaviour">
          {where === "" ? "" : " · "}
          {start.part.behaviour}
        </span>
      </p>
      <Rate />
    </header>
  );
}
