"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { type Counted, TRY_DEFAULTS, TRY_QUESTIONS, type TryBothInput, tryBothSchema } from "@/core/experiment";
import { counted } from "@/core/words";
import { Field, FormEnd, useSentForm } from "@/ui/form";
import { BlockFields, WayFields, WhereFields } from "./try-fields";
import { TryPromise } from "./try-promise";

/** A ladder an experiment may be on, with the rung that is worked now. */
export interface TryLadder {
  readonly id: string;
  readonly name: string;
  readonly rungs: number;
  readonly rung: number;
  /** How much earlier blocks on that rung differed from one to the next, by what counts; null where too few were worked. */
  readonly spreads: Readonly<Record<Counted, number | null>>;
  /** Whether an experiment is running on it. */
  readonly running: boolean;
}

/** Begins an experiment; says before it starts what it can show. */
export function TryForm({
  horseId,
  ladders,
  zones,
  kit,
}: {
  horseId: string;
  ladders: readonly TryLadder[];
  /** Names of the yard's zones and of its kit: a way may be one of them. */
  zones: readonly string[];
  kit: readonly string[];
}) {
  const router = useRouter();
  const free = ladders.filter(({ running }) => !running);
  const first = free[0];
  const [question, setQuestion] = useState("own");
  const form = useSentForm<TryBothInput>({
    schema: tryBothSchema,
    start: {
      ladder: first?.id ?? "",
      rung: first?.rung ?? 1,
      question: "",
      way_a: "",
      way_b: "",
      differ: "",
      value_a: "",
      value_b: "",
      counts: "share",
      blocks: TRY_DEFAULTS.blocks,
      most_alike: TRY_DEFAULTS.mostAlike,
      asks_each: TRY_DEFAULTS.asksEach,
    },
    target: { method: "POST", url: `/api/horses/${horseId}/tries` },
    onSaved: (id) => router.push(`/horses/${horseId}/review/try-both/${id}`),
  });
  const { watch, setValue, submit, error, problem, busy } = form;
  const [blocks, alike, asks, counts, chosen] = watch(["blocks", "most_alike", "asks_each", "counts", "ladder"]);
  const spreads = ladders.find(({ id }) => id === chosen)?.spreads;
  if (first === undefined)
    return (
      <p className="mt-3">
        {ladders.length === 0 ? "A behaviour has to be planned first." : "An experiment is running on every behaviour; end one first."}
      </p>
    );
  const choose = (value: string) => {
    setQuestion(value);
    const one = TRY_QUESTIONS.find((each) => each.key === value);
    if (one === undefined) return;
    setValue("question", one.question);
    setValue("way_a", one.a);
    setValue("way_b", one.b);
    const [part, first] = Object.entries(one.ways?.A ?? {})[0] ?? ["", ""];
    setValue("differ", part as TryBothInput["differ"]);
    setValue("value_a", first);
    setValue("value_b", Object.values(one.ways?.B ?? {})[0] ?? "");
  };
  return (
    <form onSubmit={submit} noValidate className="mt-4 grid max-w-4xl gap-4 border-l-4 border-tarn pl-4 sm:grid-cols-6">
      <div className="sm:col-span-6">
        <Field id="try-question" label="Which question" error={error("question")}>
          <select value={question} onChange={(event) => choose(event.target.value)} id="try-question" className="field-box">
            {TRY_QUESTIONS.map((one) => (
              <option key={one.key} value={one.key}>
                {one.key === "own" ? "one of your own" : `${one.question} ${one.a} or ${one.b}`}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <WayFields form={form} zones={zones} kit={kit} />
      <WhereFields form={form} ladders={ladders} free={free} />
      <BlockFields form={form} />
      <p className="sm:col-span-6" role="status" data-testid="promise">
        {counted(Number(blocks) * Number(asks) || 0, "ask")} in all.{" "}
        <TryPromise blocks={Number(blocks)} mostAlike={Number(alike)} spread={spreads?.[counts] ?? null} counts={counts} />
      </p>
      <p className="text-sm text-soft sm:col-span-6">
        Everything else stays alike: place, person, rung. Stop at any time for the horse; cut short it gives its counts, and says nothing of
        which is better. Which is due is drawn and not chosen.
      </p>
      <FormEnd label="Draw the order" busy={busy} problem={problem} />
    </form>
  );
}
