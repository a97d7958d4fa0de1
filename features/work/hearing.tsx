"use client";

import { useEffect, useState } from "react";
import { useMarker } from "../listen/kept";
import { listen, NoMicrophone } from "../listen/microphone";
import { wasOwnSound } from "../sound/feedback";
import { useActs, useLog } from "./state";

/** Listens for the marker while a block runs, and says what it heard: how many, how many by hand, how many were taken back. */
export function Hearing() {
  const act = useActs();
  const { record, events } = useLog();
  const { on, template } = useMarker();
  const [state, setState] = useState<"opening" | "listening" | string>("opening");
  const [alike, setAlike] = useState<number | null>(null);
  useEffect(() => {
    if (!on || template === null) return;
    let stop: (() => void) | null = null;
    let gone = false;
    setState("opening");
    listen(template, {
      onHeard: (heard) => {
        if (wasOwnSound(performance.now() - heard.agoMs)) return;
        setAlike(heard.alike);
        act.heardMark(heard.alike, heard.agoMs);
      },
      onListening: (listening) => setState(listening ? "listening" : "The phone has stopped it; touch the screen."),
    }).then(
      (end) => {
        if (gone) return end();
        stop = end;
        setState("listening");
      },
      (error) => setState(error instanceof NoMicrophone ? error.message : "Listening could not begin."),
    );
    return () => {
      gone = true;
      stop?.();
    };
  }, [on, template, act]);
  if (!on || template === null) return null;
  const marks = record.facts.filter((fact) => fact.type === "mark");
  const heard = marks.filter(({ payload }) => payload.heard !== undefined).length;
  const logged = events.filter((event) => event.type === "mark" && event.payload.heard !== undefined).length;
  return (
    <p className="shrink-0 text-[0.85rem] leading-tight text-soft desk:text-base" data-testid="hearing">
      {state === "listening" ? (
        <>
          Listening: <span className="figures">{heard}</span> heard
          {marks.length > heard && `, ${marks.length - heard} by hand`}
          {logged > heard && `, ${logged - heard} taken back`}
          {alike !== null && `; the last ${Math.round(alike * 100)} % alike`}
        </>
      ) : state === "opening" ? (
        "Opening the microphone."
      ) : (
        <span className="font-semibold text-brick">Not listening. {state}</span>
      )}
    </p>
  );
}
