"use client";

import Link from "next/link";
import { useState } from "react";
import { type CommonFault, faultWords } from "@/core/behaviour";
import { type LadderPlan, METHOD_GUIDES, type Method } from "@/core/ladder";
import { criterionParts, type Strand, type StrandValue, shortNumber } from "@/core/strands";
import { CueStairs, StrandChart } from "@/ui/strand-chart";

/** A behaviour of the library in full. */
export interface TemplateFacts {
  readonly key: string;
  readonly name: string;
  readonly why: string;
  readonly finished: string;
  readonly cue: string;
  readonly kit: readonly string[];
  readonly ends: readonly { readonly strand: Strand; readonly start: StrandValue; readonly goal: StrandValue }[];
  readonly faults: readonly CommonFault[];
  readonly cautions: readonly string[];
  readonly watch: readonly string[];
  readonly thumb: readonly string[];
  /** The method a plan begins with. */
  readonly method: Method;
  /** A plan for each method it can be taught by. */
  readonly plans: readonly { readonly method: Method; readonly plan: LadderPlan }[];
  /** How good trainers teach it differently; empty where they do not. */
  readonly ways: readonly { readonly key: string; readonly name: string; readonly reason: string; readonly chosen: boolean }[];
  readonly movesOn: { readonly rule: string; readonly because: string };
}

const valueWords = (value: StrandValue, unit: string) => (typeof value === "number" ? `${shortNumber(value)} ${unit}`.trim() : value);

/** Where good trainers differ: each way with its reason, and the rungs below are those of the chosen one. */
function TaughtWays({ horseId, facts }: { horseId: string; facts: TemplateFacts }) {
  return (
    <nav aria-label="Ways of teaching it" className="mt-5 grid max-w-4xl gap-x-8 gap-y-2 sm:grid-cols-2">
      {facts.ways.map(({ key, name, reason, chosen }) => (
        <Link
          key={key}
          href={`/horses/${horseId}/shape/library/${facts.key}?way=${key}`}
          aria-current={chosen ? "true" : undefined}
          scroll={false}
          className={`block border-l-4 py-1 pl-4 ${chosen ? "border-tarn" : "border-hair hover:border-ink"}`}
        >
          <span className={`block text-lg ${chosen ? "font-bold" : "underline underline-offset-4"}`}>
            {name}
            {chosen && <span className="text-sm font-normal text-soft"> · the rungs below</span>}
          </span>
          <span className="text-soft">{reason}</span>
        </Link>
      ))}
    </nav>
  );
}

/** One rung of the library's ladder: what it asks, how, when it moves on, and how far the ladder goes. */
function RungFacts({ plan, rung, facts }: { plan: LadderPlan; rung: number; facts: TemplateFacts }) {
  return (
    <section aria-label={`Rung ${rung}`} className="grid content-start gap-5">
      <div>
        <h2 className="font-sans text-sm font-normal text-soft">Rung {rung}</h2>
        <p className="text-xl leading-snug" aria-live="polite">
          {criterionParts(
            plan.strands,
            plan.rungs[rung - 1]?.values ?? {},
            plan.phases.map(({ label }) => label),
          ).map((part, i) => (part.strong ? <strong key={`${i}-${part.text}`}>{part.text}</strong> : part.text))}
        </p>
      </div>
      <div>
        <h2 className="font-sans text-sm font-normal text-soft">The ask</h2>
        <CueStairs phases={plan.phases} />
        <p className="text-sm">Cue in the end: {facts.cue}</p>
      </div>
      <div>
        <h2 className="font-sans text-sm font-normal text-soft">Moves on when</h2>
        <p>{facts.movesOn.rule}</p>
        <p className="text-sm text-soft">{facts.movesOn.because}</p>
      </div>
      <div>
        <h2 className="font-sans text-sm font-normal text-soft">From the start to the goal</h2>
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 text-sm">
          {facts.ends.map(({ strand, start, goal }) => (
            <div key={strand.id} className="contents">
              <dt className="text-soft">{strand.name}</dt>
              <dd>
                {start === goal ? valueWords(start, strand.unit) : `${valueWords(start, strand.unit)} → ${valueWords(goal, strand.unit)}`}
              </dd>
            </div>
          ))}
        </dl>
      </div>
    </section>
  );
}

/** A behaviour with its ladder, its ask, what goes wrong and what to watch; one press begins the horse's own ladder. */
export function TemplateView({ horseId, facts }: { horseId: string; facts: TemplateFacts }) {
  const [at, setAt] = useState(
    Math.max(
      0,
      facts.plans.findIndex(({ method }) => method === facts.method),
    ),
  );
  const [selected, setSelected] = useState(1);
  const chosen = facts.plans[at] ?? facts.plans[0];
  if (chosen === undefined) return null;
  const { method, plan } = chosen;
  const rung = Math.min(selected, plan.rungs.length);
  const taught = facts.ways.find((one) => one.chosen);
  const way = taught === undefined ? "" : `&way=${taught.key}`;
  return (
    <>
      <p className="mt-1 max-w-prose text-lg">{facts.finished}</p>
      <p className="mt-1 max-w-prose text-soft">{facts.why}</p>
      {facts.ways.length > 0 && <TaughtWays horseId={horseId} facts={facts} />}
      <div className="mt-5 flex flex-wrap items-center gap-x-5 gap-y-3">
        <fieldset className="flex flex-wrap rounded border-2 border-ink" aria-label="Method">
          {facts.plans.map((one, i) => (
            <button
              key={one.method}
              type="button"
              aria-pressed={i === at}
              onClick={() => setAt(i)}
              className={`min-h-11 px-3.5 font-semibold ${i === at ? "bg-ink text-on-ink" : ""}`}
            >
              {METHOD_GUIDES[one.method].short}
            </button>
          ))}
        </fieldset>
        <Link href={`/horses/${horseId}/shape/new?template=${facts.key}&method=${method}${way}`} className="act">
          Begin a ladder with it
        </Link>
      </div>
      <div className="mt-6 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-8 xl:grid-cols-[minmax(0,1fr)_17.5rem]">
        <div className="min-w-0">
          <StrandChart plan={plan} selected={rung} onSelect={setSelected} />
        </div>
        <RungFacts plan={plan} rung={rung} facts={facts} />
      </div>
      <div className="mt-8 grid gap-x-12 gap-y-7 lg:grid-cols-2">
        <section aria-labelledby="goes-wrong">
          <h2 id="goes-wrong" className="text-xl">
            What goes wrong
          </h2>
          <dl className="mt-1 grid gap-2">
            {facts.faults.map((fault) => (
              <div key={fault.sign}>
                <dt className="font-semibold">{fault.sign}</dt>
                <dd>
                  <strong className="text-tarn">{faultWords(fault, plan.strands)}</strong>. {fault.then}
                </dd>
              </div>
            ))}
          </dl>
        </section>
        <section aria-labelledby="watch">
          <h2 id="watch" className="text-xl">
            Watch in the horse
          </h2>
          <ul className="mt-1 list-disc pl-5">
            {facts.watch.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
          {facts.kit.length > 0 && (
            <p className="mt-3">
              <span className="text-soft">Kit:</span> {facts.kit.join(", ")}
            </p>
          )}
          {facts.thumb.length > 0 && (
            <div className="mt-3">
              {facts.thumb.map((rule) => (
                <p key={rule}>
                  {rule} <span className="text-sm text-soft">(common practice)</span>
                </p>
              ))}
            </div>
          )}
        </section>
        <section className="border-l-4 border-brick pl-4 lg:col-span-2" aria-labelledby="take-care">
          <h2 id="take-care" className="text-xl">
            Take care
          </h2>
          <ul className="mt-1 list-disc pl-5">
            {facts.cautions.map((one) => (
              <li key={one}>{one}</li>
            ))}
            <li>Helmet, gloves, boots. Stop for pain, lameness, heat or distress and call a veterinarian. Local rules come first.</li>
          </ul>
        </section>
      </div>
    </>
  );
}
