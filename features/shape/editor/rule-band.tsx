"use client";

import { useEffect, useRef, useState } from "react";
import { type MasteryRule, masterySentence } from "@/core/mastery";
import type { BandAsked, BandTold } from "./rule-band-worker";

/** Typing goes on before anything is let climb. */
const SETTLED_MS = 300;

/** What a rule comes to with every kind of horse, worked out beside the page. */
function useBand(rule: MasteryRule | null, rungs: number, asksPerSession: number): string | null {
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [told, setTold] = useState<BandTold | null>(null);
  const key = rule === null ? null : JSON.stringify(rule);
  useEffect(() => {
    if (key === null) return;
    const number = ++asked.current;
    const timer = setTimeout(() => {
      // A rule that is no longer wanted is not worked out to its end.
      worker.current?.terminate();
      worker.current = new Worker(new URL("./rule-band-worker.ts", import.meta.url), { type: "module" });
      worker.current.addEventListener("message", ({ data }: MessageEvent<BandTold>) => setTold(data));
      worker.current.postMessage({ number, rule: JSON.parse(key) as MasteryRule, rungs, asksPerSession } satisfies BandAsked);
    }, SETTLED_MS);
    return () => clearTimeout(timer);
  }, [key, rungs, asksPerSession]);
  useEffect(() => () => worker.current?.terminate(), []);
  return key === null || told?.number !== asked.current ? null : told.sentence;
}

function Band({ rule, rungs, asksPerSession }: { rule: MasteryRule | null; rungs: number; asksPerSession: number }) {
  const sentence = useBand(rule, rungs, asksPerSession);
  if (rule === null) return null;
  return (
    <div className="contents">
      <dt className="text-soft">{masterySentence(rule)}</dt>
      <dd className="figures min-h-6" data-testid="rule-band">
        {sentence ?? "working it out"}
      </dd>
    </div>
  );
}

/** Two rules let loose on three kinds of horse, since none is known beforehand. */
export function RuleBands({
  mine,
  theirs,
  rungs,
  asksPerSession,
}: {
  mine: MasteryRule | null;
  theirs: MasteryRule | null;
  rungs: number;
  asksPerSession: number;
}) {
  return (
    <div className="mt-4">
      <h4 className="font-semibold">Up this ladder, with horses that learn</h4>
      <dl className="mt-1 grid max-w-3xl grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-1.5 sm:grid-cols-[13rem_minmax(0,1fr)]" aria-live="polite">
        <Band rule={mine} rungs={rungs} asksPerSession={asksPerSession} />
        <Band rule={theirs} rungs={rungs} asksPerSession={asksPerSession} />
      </dl>
      <details className="mt-1 text-sm text-soft">
        <summary>how</summary>
        Eighty simulated horses of each of three kinds: one that forgives its failures (linear operator, Bush and Mosteller 1955), one that
        sours when failures run, one that gains by success and loses by failure. A rung up where the rule passes, a rung back where the word
        is Ease. The range holds eight in ten of every kind. Invented numbers: good for one rule beside another, not for a date.
      </details>
    </div>
  );
}
