"use client";

import { useEffect, useMemo, useRef, useState } from "react";
import { asksBothSides } from "@/core/ladder";
import {
  type Advice,
  EVIDENCE_MAX_AGE_DAYS,
  evidenceForRung,
  evidenceOfSession,
  type SessionRecord,
  secondsSinceRest,
  theWord,
  valuesGoalOf,
  workSeconds,
} from "@/core/session";
import { barredRung } from "@/core/welfare";
import type { RecorderStart } from "./types";
import type { SessionLog } from "./use-session-log";

const LOOK_AT_THE_CLOCK_MS = 5000;

function adviceNow(start: RecorderStart, record: SessionRecord, nowMs: number): Advice | null {
  const block = record.blocks.at(-1);
  const { ladderId, version, allowance } = start;
  if (block === undefined || block.endMs !== null || block.ladder === null || ladderId === null || version === null) return null;
  const rung = Number(block.rung);
  const own = evidenceOfSession(start.sessionId, record);
  const key = `${start.sessionId}:${record.blocks.length - 1}`;
  const running = own.filter((trial) => trial.blockKey === key);
  const before = own.filter((trial) => trial.blockKey !== key);
  const nowWallMs = (record.startWallMs ?? 0) + nowMs;
  const lastBreakEnd = record.breaks.at(-1)?.endMs ?? 0;
  return theWord({
    rule: start.plan.mastery,
    bothSides: asksBothSides(start.plan, rung),
    byValues: valuesGoalOf(start.plan, rung),
    rung,
    rungCount: start.plan.rungs.length,
    earlier: evidenceForRung([...start.earlier, ...before], {
      ladder: ladderId,
      version,
      rung,
      nowWallMs,
      maxAgeDays: EVIDENCE_MAX_AGE_DAYS,
    }),
    block: running,
    counts: block.kind === "work" || block.kind === null,
    minutesSinceRest: secondsSinceRest(record, nowMs) / 60,
    trialsSinceRest: record.trials.filter((trial) => trial.askMs >= lastBreakEnd).length,
    workMinutes: workSeconds(record, nowMs) / 60,
    nextBarred: barredRung(start.plan, rung + 1, allowance)[0]?.why ?? null,
    limits: { minutes: allowance.workMinutes, trials: allowance.repetitions, sessionTrials: record.trials.length },
  });
}

/** The word for now; logged when it changes, by the recorder that is looking at it. */
export function useWord(start: RecorderStart, { record, nowMs, log, ready }: SessionLog): Advice | null {
  const [tick, setTick] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => setTick((n) => n + 1), LOOK_AT_THE_CLOCK_MS);
    return () => clearInterval(timer);
  }, []);
  const advice = useMemo(() => {
    // The clock's words need a look now and then, also where nothing was tapped.
    void tick;
    return adviceNow(start, record, nowMs() ?? record.lastMs);
  }, [start, record, nowMs, tick]);
  const block = record.blocks.length;
  const said = useRef<string | null>(null);
  useEffect(() => {
    if (!ready || advice === null || record.finishMs !== null) return;
    const now = `${block}:${advice.word}`;
    if (said.current === null) {
      // After a reload the word on screen may have been logged already.
      const last = record.facts.findLast((fact) => fact.type === "word" || fact.type === "block.start");
      said.current = last?.type === "word" ? `${block}:${String(last.payload.word)}` : "";
    }
    if (said.current === now) return;
    said.current = now;
    log({ type: "word", payload: { word: advice.word, reason: advice.reason, numbers: { ...advice.numbers }, taken: false } });
  }, [advice, block, ready, record, log]);
  return advice;
}
