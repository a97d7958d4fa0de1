"use client";

import { useMemo, useState } from "react";
import { askedName } from "@/core/know/first-look";
import type { RibbonFacts, SlimTrial } from "@/core/record";
import { wholeTrial } from "@/core/record/slim-trial";
import { ZoomRibbon } from "@/ui/ribbon";
import { chooseTrial } from "./chosen-trial";
import { SaveRibbon } from "./save-ribbon";

const OUTCOMES = [
  ["", "any answer"],
  ["met", "got it"],
  ["try", "try"],
  ["miss", "something else"],
  ["refused", "no answer"],
] as const;

/** The ribbon of a session, whole or by block, side and answer; a press on an answer opens it to be put right. */
export function SessionRibbon({
  record,
  trials,
  endMs,
  name,
}: {
  record: Omit<RibbonFacts, "trials">;
  trials: readonly SlimTrial[];
  endMs: number;
  /** Of the session, for its file. */
  name: string;
}) {
  const [block, setBlock] = useState("");
  const [side, setSide] = useState("");
  const [outcome, setOutcome] = useState("");
  const whole = useMemo(() => trials.map(wholeTrial), [trials]);
  const shown = useMemo(
    () =>
      whole.filter(
        (trial) =>
          (block === "" || String(trial.blockIndex) === block) &&
          (side === "" || trial.side === side) &&
          (outcome === "" || trial.outcome === outcome),
      ),
    [whole, block, side, outcome],
  );
  const drawn = useMemo(() => ({ ...record, trials: shown }), [record, shown]);
  const sides = new Set(whole.map((trial) => trial.side));
  const choice = "field-box w-auto py-1 text-[0.95rem]";
  return (
    <div data-testid="session-ribbon">
      <ZoomRibbon record={drawn} endMs={endMs} onTrial={chooseTrial} />
      <div className="no-print mt-2 flex flex-wrap items-center gap-3">
        {record.blocks.length > 1 && (
          <select aria-label="Block" value={block} onChange={(event) => setBlock(event.target.value)} className={choice}>
            <option value="">every block</option>
            {record.blocks.map((one, i) => (
              <option key={one.eventId} value={i}>
                block {one.number}, {askedName(one) ?? one.behaviour}
              </option>
            ))}
          </select>
        )}
        {sides.size > 1 && (
          <select aria-label="Side" value={side} onChange={(event) => setSide(event.target.value)} className={choice}>
            <option value="">both sides</option>
            <option value="L">left</option>
            <option value="R">right</option>
          </select>
        )}
        <select aria-label="Answer" value={outcome} onChange={(event) => setOutcome(event.target.value)} className={choice}>
          {OUTCOMES.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
        <span className="figures text-sm text-soft" role="status">
          {shown.length === whole.length ? "Press an answer to open it." : `${shown.length} of ${whole.length} shown`}
        </span>
        <span className="grow" />
        <SaveRibbon name={name} />
      </div>
    </div>
  );
}
