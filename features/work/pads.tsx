"use client";

import { ArrowLeftRight, Ban, Coffee, Ellipsis, Flag, Layers, LayoutGrid, ListOrdered, Undo2 } from "lucide-react";
import { Suspense } from "react";
import { type LadderPlan, methodOf } from "@/core/ladder";
import { Pad } from "@/ui/pad";
import { OutcomeIcon } from "@/ui/ribbon";
import { lazyPart } from "./lazy-part";
import { type LowerPad, padNeeds, padPages } from "./pad-pages";
import { BOWL, DIAMOND, icon, OFFER, PEAK, SEED, Sign, WAVE, WEDGE } from "./signs";
import { useActs, useNow, useScreen, useStart } from "./state";
import { useShort } from "./use-short";

/** The pads between the asks, only where a ladder has them. */
const BetweenPad = lazyPart(() => import("./between-pad").then(({ BetweenPad }) => BetweenPad));

/** A long word on a pad of a narrow screen. */
const SMALLER = "text-[0.92rem]! desk:text-[1.02rem]!";

/** The cue phases, lightest first: the taller the bar, the clearer the ask. */
export function Phases({ plan, current, onPhase }: { plan: LadderPlan; current: number | null; onPhase: (phase: number) => void }) {
  return (
    <div style={{ gridTemplateColumns: `repeat(${plan.phases.length}, minmax(0, 1fr))` }}>
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
            className={`justify-center! pb-2 text-[0.9rem]! ${on ? "underline underline-offset-4" : "border-transparent! bg-transparent!"}`}
            icon={<span aria-hidden="true" className="absolute inset-x-0 bottom-0 bg-ochre" style={{ height: 4 + i * 4 }} />}
          />
        );
      })}
    </div>
  );
}

/** The answers: got it widest, try beside it; in Timed the hold stands before them. */
function Outcomes() {
  const act = useActs();
  const { way, open, block } = useNow();
  const asksStay = block?.criterion?.stay_s !== undefined;
  const staying = way === "timed" && asksStay && open?.answered === true;
  const tally = way === "tally";
  const got = staying ? "stayed" : way === "timed" && asksStay ? "in place" : "got it";
  return (
    <>
      <div className="grid-cols-6">
        {!tally && (
          <Pad
            label={open === null ? "hold while you ask" : "let go to release"}
            tone={open === null ? "plain" : "ochre"}
            pressed={open !== null}
            onHold={act.hold}
            onSwipe={act.phaseBy}
            keys="Space"
            next
            className="col-span-2 border-ochre!"
          />
        )}
        {tally && asksStay ? (
          <Pad
            label="got it"
            hint="hold to time the stay"
            tone="main"
            // Its second line takes the place of the sign on a pad of 56 px.
            icon={
              <span className="hidden desk:block">
                <OutcomeIcon outcome="met" size={30} />
              </span>
            }
            onHold={act.stay}
            keys="g"
            next
            className="col-span-4 text-xl!"
          />
        ) : (
          <Pad
            label={got}
            tone="main"
            icon={<OutcomeIcon outcome="met" size={34} />}
            onPress={() => act.outcome("met")}
            onSwipe={tally ? act.swipeLast : undefined}
            keys="g"
            next={tally ? true : undefined}
            className={tally ? "col-span-4 text-xl!" : "col-span-2"}
          />
        )}
        <Pad
          label="try"
          icon={<OutcomeIcon outcome="try" size={30} />}
          onPress={() => act.outcome("try")}
          onSwipe={tally ? act.swipeLast : undefined}
          keys="t"
          className={tally ? "col-span-2 text-lg!" : "col-span-2"}
        />
      </div>
      <div className="grid-cols-3">
        <Pad
          label={staying ? "left" : "other"}
          icon={<OutcomeIcon outcome="miss" size={26} />}
          onPress={() => act.outcome("miss")}
          onSwipe={tally ? act.swipeLast : undefined}
          keys="o"
        />
        <Pad
          label="no answer"
          icon={<OutcomeIcon outcome="refused" size={26} />}
          onPress={() => act.outcome("refused")}
          onSwipe={tally ? act.swipeLast : undefined}
          keys="n"
        />
        <Pad label="undo" tone="quiet" icon={<Undo2 {...icon} />} onPress={act.undo} keys="u" />
      </div>
    </>
  );
}

/** In a row of more pads than usual the words are smaller, so that they stay whole. */
export function rowText(pads: number): string {
  if (pads < 5) return "";
  return `${pads === 5 ? "[&>button]:text-[0.82rem]!" : "[&>button]:text-[0.74rem]!"} max-[359px]:[&>button]:text-[0.7rem]! [@media(min-width:560px)_and_(max-height:639px)]:[&>button]:text-[0.72rem]!`;
}

/** One of the pads below the answers. */
export function Lower({ name, rung }: { name: LowerPad; rung: number }) {
  const act = useActs();
  const { way, block, onBreak } = useNow();
  const { setSheet, setPadPage } = useScreen();
  const start = useStart();
  const { plan } = start.part;
  // What lies on the second page is pressed now and then: the first is back after it.
  const then = (press: () => void) => () => {
    setPadPage(1);
    press();
  };
  switch (name) {
    case "mark":
      return <Pad label="mark" icon={<Sign d={DIAMOND} fill />} onPress={then(act.mark)} keys="m" className="text-tarn!" />;
    case "not this one":
      return <Pad label="no reward" tone="quiet" icon={<Ban {...icon} />} onPress={then(act.notThisOne)} className="text-sm!" />;
    case "food": {
      const { reinforcer } = plan.feeding;
      const food = methodOf(plan, Math.min(rung, plan.rungs.length)) !== "pressure-release" && reinforcer === "food";
      // Where no food is used the same pad gives what takes its place.
      const instead = reinforcer === "food" || reinforcer === "scratch" ? "scratch" : reinforcer === "away" ? "go away" : "rest";
      const label = food ? (way === "tally" ? "food +1" : "food") : instead;
      return (
        <Pad label={label} icon={<Sign d={food ? SEED : WAVE} fill={food} />} onPress={then(act.food)} keys="f" className="text-plum!" />
      );
    }
    case "ease":
      return (
        <Pad label="relaxes" tone="ease" className={SMALLER} icon={<Sign d={BOWL} />} onPress={then(() => act.signal("ease"))} keys="e" />
      );
    case "tense":
      return (
        <Pad
          label="tightens"
          tone="tension"
          className={SMALLER}
          icon={<Sign d={PEAK} />}
          onPress={then(() => act.signal("tension"))}
          keys="x"
        />
      );
    case "side":
      return (
        <Pad label={block?.side === "R" ? "to left" : "to right"} icon={<ArrowLeftRight {...icon} />} onPress={then(act.side)} keys="s" />
      );
    case "offer":
      return <Pad label="offer" icon={<Sign d={OFFER} />} onPress={then(act.offer)} keys="a" />;
    case "danger":
      return <Pad label="danger" tone="danger" icon={<Sign d={WEDGE} fill />} onPress={() => act.signal("danger")} keys="d" />;
    case "wrong":
    case "looks":
    case "settles":
    case "retreat":
      return (
        <Suspense fallback={<div />}>
          <BetweenPad name={name} />
        </Suspense>
      );
    case "more":
      return (
        <Pad
          label={onBreak ? "go on" : "more"}
          pressed={onBreak ? true : undefined}
          tone={onBreak ? "ochre" : "plain"}
          icon={onBreak ? <Coffee {...icon} /> : <Ellipsis {...icon} />}
          onPress={then(onBreak ? act.takeBreak : () => setSheet("more"))}
        />
      );
  }
}

/** The pads of the recorder, for both ways of logging. */
export function Pads({ rung }: { rung: number }) {
  const act = useActs();
  const { way, open, onBreak, phase, phaseSaid, advice } = useNow();
  const { padPage, setPadPage, setSheet } = useScreen();
  const start = useStart();
  const { plan } = start.part;
  const short = useShort();
  const { first, second } = padPages(padNeeds(plan, way), short);
  const turned = second !== null && padPage === 2;
  const row = (names: readonly LowerPad[], last: boolean) => (
    <div
      key={names[0]}
      className={rowText(names.length + (last ? 1 : 0))}
      style={{ gridTemplateColumns: `repeat(${names.length + (last ? 1 : 0)}, minmax(0, 1fr))` }}
    >
      {names.map((name) => (
        <Lower key={name} name={name} rung={rung} />
      ))}
      {last && (
        <Pad
          label={turned ? "first pads" : onBreak ? "go on" : "other pads"}
          tone={onBreak && !turned ? "ochre" : "quiet"}
          icon={<LayoutGrid {...icon} />}
          onPress={onBreak && !turned ? act.takeBreak : () => setPadPage(turned ? 1 : 2)}
          keys="p"
          className="text-[0.9rem]!"
        />
      )}
    </div>
  );
  return (
    <div
      className={`pen-pads ${advice?.word === "Stop" ? "[&_button]:border-dashed! [&_button:not(.bg-brick)]:grayscale" : ""}`}
      data-way={way}
      data-page={turned ? 2 : 1}
      data-stopped={advice?.word === "Stop" ? "" : undefined}
    >
      {turned ? (
        <>
          {second.slice(0, -1).map((names) => row(names, false))}
          <div className="grid-cols-2">
            <Pad label="break" icon={<Coffee {...icon} />} onPress={act.takeBreak} keys="b" disabled={onBreak} />
            <Pad label="finish" icon={<Flag {...icon} />} onPress={() => setSheet("finish")} keys="q" />
          </div>
          {row(second.at(-1) ?? [], true)}
        </>
      ) : (
        <>
          <Phases plan={plan} current={open?.phase ?? (way === "timed" || phaseSaid ? phase : null)} onPhase={act.phase} />
          <Outcomes />
          {first.map((names, i) => row(names, second !== null && i === first.length - 1))}
        </>
      )}
      <div className="hidden! grid-cols-4 desk:grid!">
        <Pad label="break" pressed={onBreak} icon={<Coffee {...icon} />} onPress={act.takeBreak} keys="b" disabled={onBreak} />
        <Pad label="block" icon={<ListOrdered {...icon} />} onPress={() => setSheet("block")} />
        <Pad label="ladder" icon={<Layers {...icon} />} onPress={() => setSheet("ladder")} />
        <Pad label="finish" icon={<Flag {...icon} />} onPress={() => setSheet("finish")} keys="q" />
      </div>
    </div>
  );
}
