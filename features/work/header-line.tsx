"use client";

import { Keyboard } from "lucide-react";
import Link from "next/link";
import { useEffect, useState } from "react";
import { workSeconds } from "@/core/session";
import { clockWords } from "@/ui/measure";
import { OutcomeSign } from "@/ui/ribbon";
import type { RecorderState } from "./use-recorder";

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
    <span className="figures text-right font-head text-2xl leading-none font-bold" suppressHydrationWarning data-testid="clock">
      {state.onBreak && <span className="mr-2 font-sans text-sm font-semibold text-ochre">break</span>}
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
export function BlockCount({ state }: { state: RecorderState }) {
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
        className="h-6 w-[290px] max-w-[70%]"
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
      <span className="figures text-sm whitespace-nowrap">
        <span data-testid="block-count">
          {met} met of {trials.length}
          {block?.planned != null && <span className="text-soft"> · plan {block.planned}</span>}
        </span>
        {record.offers > 0 && <span className="text-soft"> · {record.offers} offered</span>}
      </span>
    </div>
  );
}

/** Horse, side, way of logging, rung and behaviour, with the session's clock and rate. */
export function HeaderLine({ state, rung }: { state: RecorderState; rung: number }) {
  const { start, block, way, setWay, setSheet } = state;
  return (
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
          {block !== null && block.ladder === null && !start.battery ? "" : `${start.battery ? "item" : "rung"} ${rung}`}
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
  );
}
