"use client";

import { useState } from "react";
import { percentileBar } from "@/core/evidence";
import type { LadderPlan } from "@/core/ladder";
import { barOf, type SessionRecord } from "@/core/record";
import { notch, type Strand, type StrandValue, shortNumber } from "@/core/strands";
import { ValueStrip } from "@/ui/measure";

const STEPS_EACH_SIDE = 2;
const key = "min-h-11 grow rounded border-2 border-ink px-1 font-semibold figures";

/** Sensible values around a middle one, easiest first. */
function around(strand: Strand, middle: number): number[] {
  const walk = (harder: 1 | -1) => {
    const list: StrandValue[] = [];
    for (let at: StrandValue = middle, n = 0; n < STEPS_EACH_SIDE; n++) {
      at = notch(strand, at, harder);
      list.push(at);
    }
    return list;
  };
  return [...new Set([...walk(-1).reverse(), middle, ...walk(1)].map(Number))];
}

/** Before the ask: what earns it now. After it: how much it was, in one tap. */
export function ValueRow({
  plan,
  record,
  onValue,
}: {
  plan: LadderPlan;
  record: SessionRecord;
  onValue: (strand: string, value: number, unit: string) => void;
}) {
  const strand = plan.strands.find(({ id }) => id === plan.workingStrandId);
  const block = record.blocks.at(-1);
  const working = block?.criterion?.working;
  const index = record.blocks.length - 1;
  const trials = record.trials.filter((trial) => trial.blockIndex === index);
  const last = trials.at(-1);
  const bar = block?.criterion == null ? null : barOf(block.criterion, block, trials);
  const setting = working?.percentile;
  const values = [
    ...(setting?.earlier ?? []),
    ...trials.flatMap(({ value, tapped }) => (value === null || tapped === "refused" ? [] : [value])),
  ];
  const usual = last?.value ?? bar?.criterion ?? working?.target ?? 0;
  const [shift, setShift] = useState(0);
  if (strand === undefined || working === undefined) return null;
  let middle = usual;
  for (let n = 0; n < Math.abs(shift); n++) middle = Number(notch(strand, middle, shift > 0 ? 1 : -1));
  const put = (value: number) => {
    setShift(0);
    onValue(working.strand, value, working.unit);
  };
  return (
    <div className="w-full text-sm">
      {bar !== null && setting !== undefined && (
        <div className="pen-values mb-1">
          <ValueStrip
            values={values.slice(-setting.look_back)}
            bar={percentileBar(values, setting.look_back, setting.wanted_share, working.harder)}
            unit={working.unit}
            harder={working.harder}
            goal={working.target}
            height={38}
            words={false}
          />
        </div>
      )}
      {last !== undefined && (
        <fieldset className="flex w-full items-stretch gap-1 whitespace-nowrap" aria-label={`How much the last one was, ${strand.name}`}>
          <button type="button" className={`${key} grow-0! px-2.5!`} aria-label="Easier values" onClick={() => setShift(shift - 3)}>
            −
          </button>
          {around(strand, middle).map((value) => (
            <button
              key={value}
              type="button"
              aria-pressed={last.value === value}
              aria-label={`${shortNumber(value)} ${working.unit}`.trim()}
              onClick={() => put(value)}
              className={`${key} ${last.value === value ? "bg-ink text-on-ink" : "bg-paper"}`}
            >
              {shortNumber(value)}
            </button>
          ))}
          <button type="button" className={`${key} grow-0! px-2.5!`} aria-label="Harder values" onClick={() => setShift(shift + 3)}>
            +
          </button>
        </fieldset>
      )}
    </div>
  );
}
