"use client";

import { useEffect, useRef, useState } from "react";
import { BEEP_SECONDS, CONNECTION_ANSWERS, CONNECTION_BEHAVIOUR, CONNECTION_QUESTION } from "@/core/know";
import { counted } from "@/core/words";
import { Pad } from "@/ui/pad";
import { click } from "../sound/feedback";
import { WatchShell } from "./shell";
import { useWatch, type WatchStart } from "./use-watch";

const INTERVALS = [5, 10, 15, 20, 30].filter((s) => s >= BEEP_SECONDS.least && s <= BEEP_SECONDS.most);
const LOOK_EVERY_MS = 200;

/** The beep's spacing travels in the block, so that a second observer hears the same beeps. */
const rungOf = (seconds: number) => `beep each ${seconds} s`;
const secondsOf = (rung: string) => Number(/\d+/.exec(rung)?.[0] ?? BEEP_SECONDS.usual);

/** What the horse goes to: a beep, one look, one tap. */
export function ConnectionRecorder({ start }: { start: WatchStart }) {
  const watch = useWatch(start);
  const { record, block } = watch;
  const [interval, setBeepSeconds] = useState<number>(BEEP_SECONDS.usual);
  const [observer, setObserver] = useState<"first" | "second">("first");
  const seconds = block === null ? interval : secondsOf(block.rung);
  const [now, setNow] = useState(0);
  const { nowMs } = watch.session;
  useEffect(() => {
    if (!watch.working) return;
    const timer = setInterval(() => setNow(nowMs() ?? 0), LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [watch.working, nowMs]);
  const beep = Math.floor(Math.max(0, now - (block?.startMs ?? 0)) / (seconds * 1000));
  const heard = useRef(0);
  useEffect(() => {
    if (beep > heard.current) click();
    heard.current = beep;
  }, [beep]);
  const samples = record.facts.filter((fact) => fact.type === "sample").filter(({ payload }) => payload.observer === observer);
  const answered = samples.find((fact) => fact.payload.beep === beep);
  const left = seconds - ((now - (block?.startMs ?? 0)) / 1000 - beep * seconds);
  const take = (answer: string) => {
    if (beep < 1) return watch.setHint("Wait for the first beep.");
    if (answered !== undefined) return watch.setHint("This beep has its answer; wait for the next, or undo.");
    watch.press({ type: "sample", payload: { question: CONNECTION_QUESTION, answer, observer, beep, interval_s: seconds } });
  };
  return (
    <WatchShell
      start={start}
      watch={watch}
      title="what it goes to"
      after={`/horses/${start.session.horse.id}/know/connection`}
      intro={
        <>
          <p>
            Turn the horse loose where it is a little unsure and stand back. At each beep look once and tap what it is with at that moment:
            ten minutes give a first picture. A second person can watch on another device at the same time.
          </p>
          <label className="grid gap-1 font-semibold">
            A beep each
            <select value={interval} onChange={(event) => setBeepSeconds(Number(event.target.value))} className="field-box font-normal">
              {INTERVALS.map((s) => (
                <option key={s} value={s}>
                  {s} seconds
                </option>
              ))}
            </select>
          </label>
          <button
            type="button"
            className="act min-h-16 text-xl"
            onClick={() =>
              watch.begin({ behaviour: CONNECTION_BEHAVIOUR, rung: rungOf(interval), sentence: "What it is with at the beep." })
            }
          >
            Begin
          </button>
        </>
      }
    >
      <div className="flex items-center justify-between gap-4">
        <p className="font-head text-xl font-bold" aria-live="polite">
          {beep < 1 ? "Wait for the first beep" : answered === undefined ? "What is it with?" : `Noted: ${answered.payload.answer}`}
        </p>
        <p className="figures text-soft">
          beep {beep}, next in {Math.max(0, Math.ceil(left))} s
        </p>
      </div>
      <div className="grid grid-cols-2 gap-2 lg:grid-cols-3">
        {CONNECTION_ANSWERS.map((answer) => (
          <Pad
            key={answer}
            label={answer}
            pressed={answered?.payload.answer === answer}
            tone={answered?.payload.answer === answer ? "main" : "plain"}
            onPress={() => take(answer)}
            className="min-h-[92px]! text-lg!"
          />
        ))}
      </div>
      <fieldset className="flex items-center gap-2">
        <legend className="sr-only">Who is watching</legend>
        {(["first", "second"] as const).map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={observer === one}
            onClick={() => setObserver(one)}
            className={`min-h-11 rounded border-2 border-ink px-3 font-semibold ${observer === one ? "bg-ink text-on-ink" : "bg-paper"}`}
          >
            {one} observer
          </button>
        ))}
        <span className="figures ml-auto text-sm text-soft" data-testid="looks">
          {counted(samples.length, "look")}
        </span>
      </fieldset>
    </WatchShell>
  );
}
