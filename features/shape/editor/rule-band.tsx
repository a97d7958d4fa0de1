"use client";

import { type RefObject, useEffect, useRef, useState } from "react";
import { type MasteryRule, masterySentence } from "@/core/mastery";
import type { YardSettings } from "@/core/settings";
import type { BandsAsked, BandTold } from "./rule-band-worker";

/** Typing goes on before anything is let climb. */
const SETTLED_MS = 300;

interface Told {
  readonly key: string;
  readonly sentences: readonly string[];
  /** The worker did not start: without the server, where it was not fetched before. */
  readonly failed: boolean;
}

/**
 * What rules come to with every kind of horse: worked out beside the page, one
 * after the other, and not before somebody looks.
 */
function useBands({ rules, rungs, asksPerSession, settings }: BandsAsked, looked: boolean): readonly string[] {
  const worker = useRef<Worker | null>(null);
  const [told, setTold] = useState<Told>({ key: "", sentences: [], failed: false });
  const key = JSON.stringify({ rules, rungs, asksPerSession, settings } satisfies BandsAsked);
  useEffect(() => {
    if (!looked) return;
    const timer = setTimeout(() => {
      const made = new Worker(new URL("./rule-band-worker.ts", import.meta.url), { type: "module" });
      worker.current = made;
      made.addEventListener("message", ({ data: { index, sentence } }: MessageEvent<BandTold>) => {
        // One that was let go may have had an answer on its way.
        if (worker.current !== made) return;
        setTold((now) => {
          const sentences = now.key === key ? [...now.sentences] : [];
          sentences[index] = sentence;
          return { key, sentences, failed: false };
        });
      });
      made.addEventListener("error", () => {
        if (worker.current === made) setTold((now) => ({ key, sentences: now.key === key ? now.sentences : [], failed: true }));
      });
      made.postMessage(JSON.parse(key) as BandsAsked);
    }, SETTLED_MS);
    return () => {
      clearTimeout(timer);
      // Rules that are no longer wanted are not worked out to their end.
      worker.current?.terminate();
      worker.current = null;
    };
  }, [key, looked]);
  const now = told.key === key ? told : null;
  return rules.map(
    (_, index) => now?.sentences[index] ?? (now?.failed ? "could not be worked out; open the page again" : "working it out"),
  );
}

/** Whether a place of the page has come into sight. */
function useLooked(): [RefObject<HTMLDivElement | null>, boolean] {
  const place = useRef<HTMLDivElement>(null);
  const [looked, setLooked] = useState(false);
  useEffect(() => {
    if (place.current === null) return;
    const watch = new IntersectionObserver((entries) => {
      if (entries.some(({ isIntersecting }) => isIntersecting)) setLooked(true);
    });
    watch.observe(place.current);
    return () => watch.disconnect();
  }, []);
  return [place, looked];
}

/** Two rules let loose on four kinds of horse, since none is known beforehand. */
export function RuleBands({
  mine,
  theirs,
  rungs,
  asksPerSession,
  settings,
}: {
  mine: MasteryRule | null;
  theirs: MasteryRule | null;
  rungs: number;
  asksPerSession: number;
  settings: YardSettings;
}) {
  const [place, looked] = useLooked();
  const rules = [mine, theirs].filter((rule) => rule !== null);
  const sentences = useBands({ rules, rungs, asksPerSession, settings }, looked);
  return (
    <div className="mt-4" ref={place}>
      <h4 className="font-semibold">Up this ladder, with horses that learn</h4>
      <dl className="mt-1 grid max-w-3xl grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-1.5 sm:grid-cols-[13rem_minmax(0,1fr)]" aria-live="polite">
        {rules.map((rule, i) => (
          <div key={i} className="contents">
            <dt className="text-soft">{masterySentence(rule)}</dt>
            <dd className="figures min-h-6" data-testid="rule-band">
              {sentences[i]}
            </dd>
          </div>
        ))}
      </dl>
      <details className="mt-1 text-sm text-soft">
        <summary>how</summary>
        Sixty simulated horses of each of four kinds: one that forgives its failures (linear operator, Bush and Mosteller 1955), one that
        sours when failures run, one that gains by success and loses by failure, one that takes fright at its own wrong answers. A rung up
        where the rule passes, a rung back where the advice is Go back. The range holds eight in ten of every kind. Invented horses: good
        for one rule beside another, not for a date.
      </details>
    </div>
  );
}
