"use client";

import { ArrowLeftRight, Ban, Coffee, Ellipsis, Flag, Undo2 } from "lucide-react";
import { type LadderPlan, methodOf } from "@/core/ladder";
import { OutcomeIcon } from "@/ui/ribbon";
import { Pad } from "./pad";
import { BOWL, DIAMOND, icon, OFFER, PEAK, SEED, Sign, WAVE, WEDGE } from "./signs";
import type { RecorderState } from "./use-recorder";

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
            className={`justify-center! overflow-hidden text-[0.95rem]! ${on ? "underline underline-offset-4" : "border-transparent! bg-transparent!"}`}
            icon={<span aria-hidden="true" className="absolute inset-x-0 bottom-0 bg-ochre" style={{ height: 4 + i * 4 }} />}
          />
        );
      })}
    </div>
  );
}

/** The answers: got it widest, try beside it; in Timed the hold stands before them. */
function Outcomes({ state }: { state: RecorderState }) {
  const { act, way, open, block } = state;
  const asksStay = block?.criterion?.stay_s !== undefined;
  const staying = way === "timed" && asksStay && open?.answered === true;
  const tally = way === "tally";
  const got = staying ? "stayed" : way === "timed" && asksStay ? "in place" : "got it";
  return (
    <div className="grid grid-cols-6 gap-2">
      {!tally && (
        <Pad
          label={open === null ? "hold while you ask" : "let go to release"}
          tone={open === null ? "plain" : "ochre"}
          pressed={open !== null}
          onHold={act.hold}
          onSwipe={act.phaseBy}
          keys="Space"
          className="col-span-2 row-span-1 min-h-[84px]! border-ochre!"
        />
      )}
      {tally && asksStay ? (
        <Pad
          label="got it"
          hint="hold to time the stay"
          tone="main"
          icon={<OutcomeIcon outcome="met" size={30} />}
          onHold={act.stay}
          keys="g"
          className="col-span-4 min-h-[88px]! text-xl!"
        />
      ) : (
        <Pad
          label={got}
          tone="main"
          icon={<OutcomeIcon outcome="met" size={34} />}
          onPress={() => act.outcome("met")}
          onSwipe={tally ? act.swipeLast : undefined}
          keys="g"
          className={tally ? "col-span-4 min-h-[88px]! text-xl!" : "col-span-2"}
        />
      )}
      <Pad
        label="try"
        icon={<OutcomeIcon outcome="try" size={30} />}
        onPress={() => act.outcome("try")}
        onSwipe={tally ? act.swipeLast : undefined}
        keys="t"
        className={tally ? "col-span-2 min-h-[88px]! text-lg!" : "col-span-2"}
      />
      <Pad
        label={staying ? "left" : "other"}
        icon={<OutcomeIcon outcome="miss" size={26} />}
        onPress={() => act.outcome("miss")}
        onSwipe={tally ? act.swipeLast : undefined}
        keys="o"
        className="col-span-2"
      />
      <Pad
        label="no answer"
        icon={<OutcomeIcon outcome="refused" size={26} />}
        onPress={() => act.outcome("refused")}
        onSwipe={tally ? act.swipeLast : undefined}
        keys="n"
        className="col-span-2"
      />
      <Pad label="undo" tone="quiet" icon={<Undo2 {...icon} />} onPress={act.undo} keys="u" className="col-span-2" />
    </div>
  );
}

/** The pads of the recorder, for both ways of logging. */
export function Pads({ state, rung }: { state: RecorderState; rung: number }) {
  const { act, way, open, block, onBreak } = state;
  const { plan } = state.start;
  const { reinforcer } = plan.feeding;
  const food = methodOf(plan, Math.min(rung, plan.rungs.length)) !== "pressure-release" && reinforcer === "food";
  // Where no food is used the same pad gives what takes its place.
  const instead = reinforcer === "food" || reinforcer === "scratch" ? "scratch" : reinforcer === "away" ? "go away" : "rest";
  return (
    <div className="grid gap-2" data-way={way}>
      <Phases plan={plan} current={open?.phase ?? state.phase} onPhase={act.phase} />
      <Outcomes state={state} />
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
        <Pad label="ease" tone="ease" icon={<Sign d={BOWL} />} onPress={() => act.signal("ease")} keys="e" />
        <Pad label="tense" tone="tension" icon={<Sign d={PEAK} />} onPress={() => act.signal("tension")} keys="x" />
      </div>
      <div className="grid grid-cols-4 gap-2">
        <Pad label={block?.side === "R" ? "to left" : "to right"} icon={<ArrowLeftRight {...icon} />} onPress={act.side} keys="s" />
        <Pad label="offer" icon={<Sign d={OFFER} />} onPress={act.offer} keys="a" />
        <Pad label="danger" tone="danger" icon={<Sign d={WEDGE} fill />} onPress={() => act.signal("danger")} keys="d" />
        <Pad
          label={onBreak ? "go on" : "more"}
          pressed={onBreak ? true : undefined}
          tone={onBreak ? "ochre" : "plain"}
          icon={onBreak ? <Coffee {...icon} /> : <Ellipsis {...icon} />}
          onPress={onBreak ? act.takeBreak : () => state.setSheet("more")}
        />
      </div>
      <div className="hidden grid-cols-4 gap-2 lg:grid">
        <Pad label="break" pressed={onBreak} icon={<Coffee {...icon} />} onPress={act.takeBreak} keys="b" disabled={onBreak} />
        <Pad label="block" icon={<span className="figures text-lg leading-none">{rung}</span>} onPress={() => state.setSheet("block")} />
        <Pad
          label="ladder"
          icon={
            <span aria-hidden="true" className="font-bold">
              ⇄
            </span>
          }
          onPress={() => state.setSheet("ladder")}
        />
        <Pad label="finish" icon={<Flag {...icon} />} onPress={() => state.setSheet("finish")} />
      </div>
    </div>
  );
}
