"use client";

import { useEffect, useState } from "react";
import { type ReinforcementCoach, reinforcementCoach, type Step } from "@/core/coach";
import { methodOf, scheduleOf } from "@/core/ladder";
import { useLog, useNow } from "./state";
import type { RecorderState } from "./use-recorder";

const STEP_WORDS: Record<Step, string> = {
  ask: "ask",
  answer: "answer",
  release: "release",
  mark: "mark",
  wait: "wait",
  food: "food",
  instead: "give it",
};

/** What the rung's reinforcement comes to now; null where the method gives the release alone. */
export function coachOf(
  { start, session, block }: Pick<RecorderState, "start" | "session" | "block">,
  rung: number,
): ReinforcementCoach | null {
  const method = methodOf(start.part.plan, Math.min(rung, start.part.plan.rungs.length));
  if (block === null || method === "pressure-release") return null;
  const { reinforcer, politeSeconds } = start.part.plan.feeding;
  const schedule = block.criterion?.schedule ?? scheduleOf(start.part.plan, rung);
  return reinforcementCoach(session.record, { method, schedule, reinforcer, politeSeconds }, session.nowMs() ?? session.record.lastMs);
}

/** Before the ask: whether this one earns it, and what is left. After it: which step comes next, and what slipped. */
export function CoachLine({ coach, asking }: { coach: ReinforcementCoach; asking: boolean }) {
  const session = useLog();
  const { way } = useNow();
  const [, look] = useState(0);
  const waiting = coach.waitSeconds > 0;
  useEffect(() => {
    if (!waiting) return;
    const timer = setInterval(() => look((n) => n + 1), 250);
    return () => clearInterval(timer);
  }, [waiting]);
  const { record } = session;
  const last = record.trials.at(-1);
  const slip = last?.blockIndex === record.blocks.length - 1 && way === "timed" ? last.faults.at(-1) : undefined;
  const word = (step: Step) => `${STEP_WORDS[step]}${step === "wait" ? ` ${Math.ceil(coach.waitSeconds)} s` : ""}`;
  return (
    <p
      className={`flex shrink-0 flex-wrap items-baseline gap-x-2 text-[0.85rem] leading-tight desk:text-base ${asking ? "pen-tall" : ""}`}
      data-testid="coach"
    >
      <span className={`font-semibold ${coach.nextEarns ? "text-plum" : "text-soft"}`}>{coach.sentence}</span>
      {coach.piecesLeft === 0 ? (
        <strong className="text-brick">The pouch is empty.</strong>
      ) : (
        coach.piecesLeft !== null && <span className="figures text-soft">{coach.piecesLeft} left in the pouch</span>
      )}
      {way === "timed" && (
        <>
          {coach.next !== null && <strong className="pen-not-tall">{word(coach.next)} now</strong>}
          <span className="pen-tall text-soft">
            {coach.steps.map((step, i) => (
              <span key={step}>
                {i > 0 && " → "}
                {step === coach.next ? <strong className="text-ink underline underline-offset-4">{word(step)}</strong> : STEP_WORDS[step]}
              </span>
            ))}
          </span>
        </>
      )}
      {slip !== undefined && <span className="font-semibold text-brick">Slip: {slip}.</span>}
    </p>
  );
}
