"use client";

import { Coffee, LayoutGrid, Undo2 } from "lucide-react";
import { methodOf } from "@/core/ladder";
import { Pad } from "@/ui/pad";
import { OutcomeIcon } from "@/ui/ribbon";
import { openPads } from "./face";
import { betweenPads, type LowerPad } from "./pad-pages";
import { Lower, Phases, rowText } from "./pads";
import { icon } from "./signs";
import { useActs, useNow, useStart } from "./state";

/** What the rung needs beside the answers: food it may earn, a side, what the ladder asks for between the asks. */
function useNeeded(rung: number): readonly LowerPad[] {
  const { block } = useNow();
  const { plan } = useStart().part;
  const feeds = plan.feeding.reinforcer === "food" && methodOf(plan, Math.min(rung, plan.rungs.length)) !== "pressure-release";
  return [...(feeds ? (["food"] as const) : []), ...(block?.side ? (["side"] as const) : []), ...betweenPads(plan)];
}

/** The pads an answer needs, as large as the screen lets them be. Everything else is one swipe up. */
export function PlainPads({ rung }: { rung: number }) {
  const act = useActs();
  const { open, phase, phaseSaid, block, onBreak, advice } = useNow();
  const { plan } = useStart().part;
  const needed = useNeeded(rung);
  const asksStay = block?.criterion?.stay_s !== undefined;
  // Where the rung asks how clear the cue was, it has to be said.
  const asksCue = block?.criterion?.max_phase !== undefined;
  const last = needed.length + 3;
  const stopped = advice?.word === "Stop";
  return (
    <div
      className={`pen-pads ${stopped ? "[&_button]:border-dashed! [&_button:not(.bg-brick)]:grayscale" : ""}`}
      data-way="tally"
      data-page={1}
      data-rows={asksCue ? 4 : 3}
      data-stopped={stopped ? "" : undefined}
    >
      {asksCue && <Phases plan={plan} current={open?.phase ?? (phaseSaid ? phase : null)} onPhase={act.phase} />}
      <div className="grid-cols-1">
        <Pad
          label="got it"
          hint={asksStay ? "hold to time the stay" : undefined}
          tone="main"
          icon={<OutcomeIcon outcome="met" size={34} />}
          onPress={asksStay ? undefined : () => act.outcome("met")}
          onHold={asksStay ? act.stay : undefined}
          onSwipe={asksStay ? undefined : act.swipeLast}
          keys="g"
          next
          className="text-2xl!"
        />
      </div>
      <div className="grid-cols-3">
        <Pad
          label="try"
          icon={<OutcomeIcon outcome="try" size={30} />}
          onPress={() => act.outcome("try")}
          onSwipe={act.swipeLast}
          keys="t"
          className="text-lg!"
        />
        <Pad
          label="other"
          icon={<OutcomeIcon outcome="miss" size={26} />}
          onPress={() => act.outcome("miss")}
          onSwipe={act.swipeLast}
          keys="o"
        />
        <Pad
          label="no answer"
          icon={<OutcomeIcon outcome="refused" size={26} />}
          onPress={() => act.outcome("refused")}
          onSwipe={act.swipeLast}
          keys="n"
        />
      </div>
      <div className={rowText(last)} style={{ gridTemplateColumns: `repeat(${last}, minmax(0, 1fr))` }}>
        <Pad label="undo" tone="quiet" icon={<Undo2 {...icon} />} onPress={act.undo} keys="u" />
        {needed.map((name) => (
          <Lower key={name} name={name} rung={rung} />
        ))}
        <Lower name="danger" rung={rung} />
        {onBreak ? (
          <Pad label="go on" pressed tone="ochre" icon={<Coffee {...icon} />} onPress={act.takeBreak} />
        ) : (
          <Pad label="all pads" tone="quiet" icon={<LayoutGrid {...icon} />} onPress={() => openPads(true)} keys="p" />
        )}
      </div>
    </div>
  );
}
