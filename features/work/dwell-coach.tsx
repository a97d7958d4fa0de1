"use client";

import { type RefObject, useEffect, useRef, useState } from "react";
import { type DwellAdvice, dwellAdvice, hasRopeOnLeg, plannedDwell } from "@/core/coach";
import { tell } from "../sound/signals";
import { useLog, useNow, useStart } from "./state";
import type { RecorderState } from "./use-recorder";

type Open = NonNullable<RecorderState["open"]>;

const LOOK_EVERY_MS = 100;

const sinceOf = (open: Open) => open.phaseSteps.at(-1)?.ms ?? open.askMs;

function adviceFor({ start, session, block }: Pick<RecorderState, "start" | "session" | "block">, open: Open): DwellAdvice {
  const asked = block?.criterion?.stay_s;
  const stay =
    asked === undefined || open.lastAnswerMs === null ? null : { askedSeconds: asked, sinceMs: open.lastAnswerMs, reached: open.reached };
  const ask = { askMs: open.askMs, phase: open.phase ?? 1, phaseMs: sinceOf(open), answer: open.lastAnswer, stay };
  return dwellAdvice(
    { ...start.part.plan, ropeOnLeg: hasRopeOnLeg(start.part.behaviourInput.template) },
    ask,
    session.nowMs() ?? ask.phaseMs,
  );
}

/** What to do with the pressure now. It is looked at ten times a second, and drawn anew only when its words change. */
function useDwell(open: Open, ring: RefObject<SVGCircleElement | null>): DwellAdvice {
  const start = useStart();
  const session = useLog();
  const { block } = useNow();
  const state = { start, session, block };
  const [, look] = useState("");
  const newest = useRef({ state, open });
  newest.current = { state, open };
  const phaseMs = sinceOf(open);
  const phase = open.phase ?? 1;
  useEffect(() => {
    const { plan } = newest.current.state.start.part;
    const planned = plannedDwell(plan, phase);
    const pulse = plan.phases[phase - 1];
    const beatMs = pulse?.profile === "pulse" && pulse.pulsesPerMinute !== null ? 60_000 / pulse.pulsesPerMinute : null;
    const now = newest.current.state.session.nowMs() ?? phaseMs;
    let ticks = Math.floor(Math.max(0, now - phaseMs) / 1000);
    let beats = beatMs === null ? 0 : Math.ceil(Math.max(0, now - phaseMs) / beatMs);
    let said = "";
    let sentence = "";
    const timer = setInterval(() => {
      const advice = adviceFor(newest.current.state, newest.current.open);
      // The ring is moved by hand and in steps: an animation would paint sixty times a second beside the pads.
      if (ring.current !== null) ring.current.style.strokeDashoffset = String(offsetOf(advice));
      if (advice.word !== said) {
        if (said !== "" && (advice.word === "step up" || (said === "stays" && advice.word === "release"))) tell("dwell end");
        if (advice.word === "maximum") tell("maximum");
        said = advice.word;
      }
      if (advice.sentence !== sentence) {
        sentence = advice.sentence;
        look(sentence);
      }
      const second = Math.floor(advice.heldSeconds);
      if (beatMs !== null && advice.heldSeconds * 1000 >= beats * beatMs) {
        beats = Math.floor((advice.heldSeconds * 1000) / beatMs) + 1;
        tell("beat");
      } else if (second > ticks && beatMs === null && advice.heldSeconds < planned) tell("tick");
      ticks = Math.max(ticks, second);
    }, LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [phase, phaseMs, ring]);
  return adviceFor(state, open);
}

const RADIUS = 21;
const ROUND = 2 * Math.PI * RADIUS;

const offsetOf = ({ ring }: DwellAdvice) => ROUND * (1 - ring);

/** The ring of the dwell, with its seconds inside. */
function DwellRing({ advice, ring }: { advice: DwellAdvice; ring: RefObject<SVGCircleElement | null> }) {
  const { plannedSeconds, word } = advice;
  const over = word === "step up" || word === "maximum";
  return (
    <svg
      width="50"
      height="50"
      className="shrink-0 contain-paint"
      viewBox="-25 -25 50 50"
      role="img"
      aria-label={`dwell ${plannedSeconds} s, ${word}`}
    >
      <circle r={RADIUS} fill="none" stroke="var(--hair)" strokeWidth="5" />
      <circle
        ref={ring}
        r={RADIUS}
        fill="none"
        stroke="var(--ochre)"
        strokeWidth="6"
        strokeDasharray={ROUND}
        transform="rotate(-90)"
        strokeDashoffset={offsetOf(advice)}
      />
      {over ? (
        <path d="M-7 4 L0 -7 L7 4 M-7 11 L0 0 L7 11" fill="none" stroke="currentColor" strokeWidth="3" />
      ) : (
        <text textAnchor="middle" dy="6" fontSize="17" fontWeight="700" fill="currentColor" className="figures">
          {plannedSeconds}
        </text>
      )}
    </svg>
  );
}

/** The ring of the phase's dwell and what to do with the pressure now. A phase changes by a press only. */
export function DwellCoach({ open }: { open: Open }) {
  const start = useStart();
  const ring = useRef<SVGCircleElement>(null);
  const advice = useDwell(open, ring);
  const urgent = advice.word === "maximum" || advice.word === "release";
  return (
    <div className="flex min-h-[54px] grow items-center gap-3" data-testid="dwell" data-word={advice.word}>
      <DwellRing advice={advice} ring={ring} />
      <p
        aria-live="polite"
        className={`min-w-0 grow font-head text-[1.2rem] leading-tight font-bold ${urgent ? "text-brick" : "text-ochre"}`}
      >
        {advice.sentence}
      </p>
      <span className="figures shrink-0 text-sm text-soft">max {start.part.plan.maximumSeconds} s</span>
    </div>
  );
}
