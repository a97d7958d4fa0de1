"use client";

import { ArrowLeftRight, Ban, Coffee, Flag, Undo2 } from "lucide-react";
import { type LadderPlan, methodOf } from "@/core/ladder";
import { OutcomeIcon } from "@/ui/ribbon";
import { Pad } from "./pad";
import type { RecorderState } from "./use-recorder";

const icon = { size: 22, "aria-hidden": true } as const;

function Sign({ d, fill = false }: { d: string; fill?: boolean }) {
  return (
    <svg width="24" height="18" viewBox="-12 -9 24 18" aria-hidden="true">
      <path d={d} fill={fill ? "currentColor" : "none"} stroke={fill ? "none" : "currentColor"} strokeWidth="2.6" />
    </svg>
  );
}

const DIAMOND = "M0 -8 L6.5 0 L0 8 L-6.5 0 Z";
const SEED = "M-8 0 A8 5 0 1 0 8 0 A8 5 0 1 0 -8 0 Z";
const BOWL = "M-8 -5 A8 9 0 0 0 8 -5";
const PEAK = "M-8 6 L0 -6 L8 6";
const WAVE = "M-10 2 Q-5 -6 0 2 T10 2";

/** The cue phases, lightest first: the taller the bar, the clearer the ask. */
function Phases({ plan, current, onPhase }: { plan: LadderPlan; current: number; onPhase: (phase: number) => void }) {
  return (
    <div className="grid gap-2" style={{ gridTemplateColumns: `repeat(${plan.phases.length}, minmax(0, 1fr))` }}>
      {plan.phases.map((phase, i) => {
        const on = current === i + 1;
        return (
          <Pad
            key={i}
            label={phase.label}
            lead={`cue ${i + 1}: `}
            pressed={on}
            keys={String(i + 1)}
            onPress={() => onPhase(i + 1)}
            tone={on ? "ochre" : "plain"}
            className={`relative justify-center! overflow-hidden text-[0.95rem]! ${on ? "underline underline-offset-4" : "border-transparent! bg-transparent!"}`}
            icon={<span aria-hidden="true" className="absolute inset-x-0 bottom-0 bg-ochre" style={{ height: 4 + i * 4 }} />}
          />
        );
      })}
    </div>
  );
}

/** The pads of the recorder, for both ways of logging. */
export function Pads({ plan, state, rung }: { plan: LadderPlan; state: RecorderState; rung: number }) {
  const { act, way, open, block, onBreak } = state;
  const staying = way === "timed" && block?.criterion?.stay_s !== undefined && open?.answered === true;
  const { reinforcer } = plan.feeding;
  const food = methodOf(plan, rung) !== "pressure-release" && reinforcer === "food";
  // Where no food is used the same pad gives what takes its place.
  const instead = reinforcer === "food" || reinforcer === "scratch" ? "scratch" : reinforcer === "away" ? "go away" : "rest";
  const got = staying ? "stayed" : way === "timed" && block?.criterion?.stay_s !== undefined ? "in place" : "got it";
  const outcomes = (
    <>
      <Pad
        label={got}
        tone="main"
        icon={<OutcomeIcon outcome="met" size={34} />}
        onPress={() => act.outcome("met")}
        keys="g"
        className={way === "tally" ? "col-span-4 min-h-[88px]! text-xl!" : "col-span-2"}
      />
      <Pad
        label="try"
        icon={<OutcomeIcon outcome="try" size={30} />}
        onPress={() => act.outcome("try")}
        keys="t"
        className={way === "tally" ? "col-span-2 min-h-[88px]! text-lg!" : "col-span-2"}
      />
      <Pad
        label={staying ? "left" : "other"}
        icon={<OutcomeIcon outcome="miss" size={26} />}
        onPress={() => act.outcome("miss")}
        keys="o"
        className="col-span-2"
      />
      <Pad
        label="no answer"
        icon={<OutcomeIcon outcome="refused" size={26} />}
        onPress={() => act.outcome("refused")}
        keys="n"
        className="col-span-2"
      />
      <Pad label="undo" tone="quiet" icon={<Undo2 {...icon} />} onPress={act.undo} keys="u" className="col-span-2" />
    </>
  );
  return (
    <div className="grid gap-2" data-way={way}>
      <Phases plan={plan} current={open?.phase ?? state.phase} onPhase={act.phase} />
      <div className="grid grid-cols-6 gap-2">
        {way === "timed" && (
          <Pad
            label={open === null ? "hold while you ask" : "let go to release"}
            tone={open === null ? "plain" : "ochre"}
            pressed={open !== null}
            onHold={act.hold}
            keys="Space"
            className="col-span-2 row-span-1 min-h-[84px]! border-ochre!"
          />
        )}
        {outcomes}
      </div>
      <div className="grid grid-cols-4 gap-2">
        {way === "tally" ? (
          <Pad label="not this one" tone="quiet" icon={<Ban {...icon} />} onPress={act.notThisOne} className="text-sm!" />
        ) : (
          <Pad label="mark" icon={<Sign d={DIAMOND} fill />} onPress={act.mark} keys="m" className="text-tarn!" />
        )}
        {food ? (
          <Pad
            label={way === "tally" ? "food +1" : "food"}
            icon={<Sign d={SEED} fill />}
            onPress={act.food}
            keys="f"
            className="text-plum!"
          />
        ) : (
          <Pad label={instead} icon={<Sign d={WAVE} />} onPress={act.food} keys="f" className="text-plum!" />
        )}
        <Pad label="ease" tone="ease" icon={<Sign d={BOWL} />} onPress={act.ease} keys="e" />
        <Pad label="tense" tone="tension" icon={<Sign d={PEAK} />} onPress={act.tension} keys="x" />
      </div>
      <div className="grid grid-cols-4 gap-2">
        <Pad label={block?.side === "R" ? "to left" : "to right"} icon={<ArrowLeftRight {...icon} />} onPress={act.side} keys="s" />
        <Pad label="block" icon={<span className="figures text-lg leading-none">{rung}</span>} onPress={() => state.setSheet("block")} />
        <Pad
          label={onBreak ? "go on" : "break"}
          pressed={onBreak}
          tone={onBreak ? "ochre" : "plain"}
          icon={<Coffee {...icon} />}
          onPress={act.takeBreak}
          keys="b"
        />
        <Pad label="finish" icon={<Flag {...icon} />} onPress={() => state.setSheet("finish")} />
      </div>
    </div>
  );
}
