"use client";

import { useState } from "react";
import { dangerSigns, openStopSign } from "@/core/record";
import { StopDialog } from "@/ui/stop-dialog";
import type { Circle } from "./use-circle";

/** Fewer letters than this are no reason. */
const SHORTEST_REASON = 4;

/** After a danger sign on the circle: stop, make safe; going on after the second takes a reason. */
export function StopPanel({ circle, onEnd }: { circle: Circle; onEnd: () => void }) {
  const { watch } = circle;
  const [what, setWhat] = useState("");
  const [why, setWhy] = useState("");
  const times = dangerSigns(watch.record);
  const fact = openStopSign(watch.record) ?? undefined;
  const pain = fact?.payload.class === "pain";
  const ends = times >= 2 || pain;
  const answer = (then: string, over: boolean) =>
    watch.press({
      type: "safety",
      payload: {
        what: what.trim() === "" ? "danger" : what.trim(),
        then,
        ...(ends && !over ? { why: why.trim() } : {}),
        ...(over ? { ends: true } : {}),
      },
    });
  return (
    <StopDialog
      words={
        pain
          ? "A sign of pain. Stop for today. Write down what you saw, and have a vet look before it works again."
          : "Give line at once; let it go rather than be dragged. Bring the horse to walk or let it stand. Breathe."
      }
    >
      <label className="font-semibold">
        What happened
        <input value={what} maxLength={300} className="field-box mt-1 font-normal" onChange={(event) => setWhat(event.target.value)} />
      </label>
      {ends && (
        <label className="font-semibold">
          Why it is safe to go on
          <input value={why} maxLength={300} className="field-box mt-1 font-normal" onChange={(event) => setWhy(event.target.value)} />
          <span className="text-sm font-normal text-soft">
            {pain ? "A sign of pain" : times === 2 ? "The second danger sign in this session" : `Danger sign number ${times}`}: going on
            takes a reason.
          </span>
        </label>
      )}
      <button
        type="button"
        className={ends ? "act min-h-20 text-xl" : "act-quiet min-h-14"}
        onClick={() => {
          answer("end", true);
          onEnd();
        }}
      >
        End here and cool down
      </button>
      <button
        type="button"
        className={ends ? "act-quiet min-h-14" : "act min-h-16 text-xl"}
        disabled={ends && why.trim().length < SHORTEST_REASON}
        onClick={() => answer("go on in walk", false)}
      >
        Go on in walk
      </button>
      {fact !== undefined && (
        <button
          type="button"
          className="link min-h-12 justify-self-start"
          onClick={() => watch.press({ type: "correct", payload: { event: fact.id, strike: true, reason: "tapped by mistake" } })}
        >
          Tapped by mistake
        </button>
      )}
      <p className="text-sm text-soft">
        Anyone hurt: help first. A horse that is hurt, lame or in distress: call a veterinarian. A horse that kicks, bolts or rears at
        people: work on beside a qualified professional.
      </p>
    </StopDialog>
  );
}
