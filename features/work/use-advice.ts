"use client";

import { useEffect, useMemo, useRef, useState } from "react";
import { type Advice, adviceInputOf, adviceLogged, theAdvice } from "@/core/advice";
import { handlerOfBegun } from "@/core/pack";
import type { SessionRecord } from "@/core/record";
import type { SessionLog } from "../device/use-session-log";
import type { AtWork } from "./types";

const LOOK_AT_THE_CLOCK_MS = 5000;

/** The advice now of the ladder in work; null where there is none, or no block of it runs. */
export function adviceNow(start: AtWork, record: SessionRecord, nowMs: number): Advice | null {
  const { ladderId, version, plan, earlier, circling, involves } = start.part;
  const { allowance, restingBreaths, weakerSide, heatLowerCelsius } = start.today;
  const { settings } = start.yard;
  if (ladderId === null || version === null) return null;
  const carried = new Map(start.part.carried.map(([of, rungs]) => [of, new Map(rungs)]));
  const situation = {
    session: start.session.id,
    record,
    nowMs,
    plan,
    ladder: ladderId,
    version,
    handler: handlerOfBegun(start.session.begun),
    earlier,
    carried,
    allowance,
    restingBreaths,
    weakerSide,
    heatLowerCelsius,
    involves,
    circling:
      circling === null ? null : { left: circling, ladders: start.parts.flatMap((one) => (one.circling === null ? [] : one.ladderId)) },
  };
  const input = adviceInputOf(situation, settings);
  return input === null ? null : theAdvice(input, settings);
}

/** The advice for now; logged when it changes, by the recorder that is looking at it. */
export function useAdvice(start: AtWork, { record, nowMs, log, ready }: SessionLog): Advice | null {
  const [tick, setTick] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => setTick((n) => n + 1), LOOK_AT_THE_CLOCK_MS);
    return () => clearInterval(timer);
  }, []);
  const advice = useMemo(() => {
    // The clock's advice needs a look now and then, also where nothing was tapped.
    void tick;
    return adviceNow(start, record, nowMs() ?? record.lastMs);
  }, [start, record, nowMs, tick]);
  const block = record.blocks.length;
  const said = useRef<string | null>(null);
  useEffect(() => {
    if (!ready || advice === null || record.finishMs !== null) return;
    const payload = adviceLogged(advice, false);
    // By its key: Start and Repeat are logged as one.
    const now = `${block}:${payload.word}`;
    if (said.current === null) {
      // After a reload the advice on screen may have been logged already.
      const last = record.facts.findLast((fact) => fact.type === "word" || fact.type === "block.start");
      said.current = last?.type === "word" ? `${block}:${String(last.payload.word)}` : "";
    }
    if (said.current === now) return;
    said.current = now;
    // Another recorder of the session may have said it already.
    const last = record.facts.findLast((fact) => fact.type === "word" || fact.type === "block.start");
    if (last?.type === "word" && last.payload.word === payload.word && last.payload.taken === false && last.payload.did === undefined)
      return;
    log({ type: "word", payload });
  }, [advice, block, ready, record, log]);
  return advice;
}
