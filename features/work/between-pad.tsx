"use client";

import { Pad } from "@/ui/pad";
import type { BetweenPadName } from "./pad-pages";
import { Sign, WAVE } from "./signs";
import { useActs, useLog, useNow, useScreen } from "./state";

/** A wrong choice: the line turns off its way. */
const WRONG = "M-10 5 H-1 L4 -6 M1 -6 H5 V-2";
/** Looking by its own will. */
const EYE = "M-10 0 Q0 -9 10 0 Q0 9 -10 0 Z M-2.5 0 A2.5 2.5 0 1 0 2.5 0 A2.5 2.5 0 1 0 -2.5 0";
/** Settling: the line comes down and lies flat. */
const SETTLE = "M-10 -6 Q-3 -6 0 1 Q2 6 10 6";

const SMALLER = "text-[0.92rem]! desk:text-[1.02rem]!";

/** One of the pads between the asks, for a ladder that has asked for it. */
export function BetweenPad({ name }: { name: BetweenPadName }) {
  const act = useActs();
  const { record } = useLog();
  const { block } = useNow();
  const { setPadPage } = useScreen();
  if (name === "wrong") {
    const open = record.timeLine.wrongs.at(-1)?.endMs === null;
    return (
      <Pad
        label="wrong"
        icon={<Sign d={WRONG} />}
        pressed={open}
        tone={open ? "ochre" : "plain"}
        onHold={act.wrong}
        keys="v"
        className={`${SMALLER} border-ochre!`}
      />
    );
  }
  if (name === "retreat") {
    const { working } = block?.criterion ?? {};
    const metres = working?.strand === "approach" ? working.target : null;
    return (
      <Pad
        label="back off"
        icon={<Sign d={WAVE} />}
        onPress={() => {
          setPadPage(1);
          act.retreat(metres);
        }}
        keys="r"
        className={`${SMALLER} text-plum!`}
      />
    );
  }
  const open = record.timeLine.ownTimes.some((span) => span.what === name && span.endMs === null);
  return (
    <Pad
      label={open ? (name === "looks" ? "looked" : "settled") : name}
      icon={<Sign d={name === "looks" ? EYE : SETTLE} />}
      pressed={open}
      tone={open ? "ochre" : "plain"}
      onPress={() => act.ownTime(name)}
      keys={name === "looks" ? "k" : "y"}
      className={SMALLER}
    />
  );
}
