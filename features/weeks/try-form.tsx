"use client";

import { useRouter } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import type { AnyObjectSchema } from "yup";
import {
  BLOCKS,
  COUNTED,
  COUNTED_WORDS,
  type Counted,
  type Promised,
  promiseOf,
  TRY_DEFAULTS,
  TRY_QUESTIONS,
  type TryBothInput,
  tryBothSchema,
  WAY_PART_FACTS,
  WAY_PARTS,
  wayValueWords,
} from "@/core/experiment";
import { counted } from "@/core/words";
import { Field, FormEnd, tied, useSentForm } from "@/ui/form";

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

const RUNNING_WORDS = { 1: "never the same twice running", 2: "at most twice running", 3: "at most three times running" } as const;

/** A difference in the unit of what counts. */
function sizeWords(counts: Counted, value: number): string {
  if (counts === "share") return `${Math.round(value * 100)} points`;
  return `${value >= 10 ? Math.round(value) : value.toFixed(1)} ${COUNTED_WORDS[counts].unit}`;
}

function PromiseWords({ promised, spread, counts }: { promised: Promised | null; spread: number | null; counts: Counted }) {
  if (promised === null) return <>Working out what so many blocks can show …</>;
  const { leastP, orders, foundSpreads } = promised;
  const drawn = `One of ${orders} orders is drawn.`;
  if (leastP >= 0.05)
    return (
      <>
        {drawn} <strong>So few blocks can show nothing</strong>: the smallest p that could come out is {leastP.toFixed(2)}.
      </>
    );
  if (foundSpreads === null)
    return (
      <>
        {drawn} Only a difference more than four times as large as what one block differs from the next would be found eight times in ten.
      </>
    );
  return (
    <>
      {drawn} A difference {foundSpreads} times as large as what one block differs from the next is found eight times in ten
      {spread === null
        ? "; how much blocks of this horse differ on this rung is not known yet, four of them tell."
        : `: with this horse’s earlier blocks that is about ${sizeWords(counts, foundSpreads * spread)}. A smaller one may well be missed.`}
    </>
  );
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
  const { register, watch, setValue, submit, error, problem, busy } = useSentForm<TryBothInput>({
    schema: tryBothSchema as unknown as AnyObjectSchema,
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
  const [blocks, alike, asks, counts, chosen, differ] = watch(["blocks", "most_alike", "asks_each", "counts", "ladder", "differ"]);
  const values = differ === "" ? [] : (WAY_PART_FACTS[differ].values ?? (differ === "zone" ? zones : kit));
  const even = [Number(blocks), Number(alike)] as const;
  const [promised, setPromised] = useState<Promised | null>(null);
  const key = `${even[0]} ${even[1]}`;
  useEffect(() => {
    setPromised(null);
    // After the choice is on the screen: the longest takes a few tenths of a second.
    const later = setTimeout(() => {
      try {
        const [n, running] = key.split(" ").map(Number);
        setPromised(promiseOf(n ?? 0, running ?? 0));
      } catch {
        setPromised(null);
      }
    }, 30);
    return () => clearTimeout(later);
  }, [key]);
  const ladder = useMemo(() => ladders.find(({ id }) => id === chosen), [ladders, chosen]);
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
      {(["way_a", "way_b"] as const).map((name) => (
        <div key={name} className="sm:col-span-3">
          <Field id={name} label={name === "way_a" ? "A" : "B"} error={error(name)}>
            <input {...register(name)} {...tied(name, error(name))} className="field-box" autoComplete="off" maxLength={100} />
          </Field>
        </div>
      ))}
      <div className="sm:col-span-2">
        <Field id="try-differ" label="What they differ in" hint="The pads and the log follow it, block by block" error={error("differ")}>
          <select
            {...register("differ", {
              onChange: () => {
                setValue("value_a", "");
                setValue("value_b", "");
              },
            })}
            {...tied("try-differ", error("differ"))}
            className="field-box"
          >
            <option value="">something else; the words alone say it</option>
            {WAY_PARTS.map((part) => (
              <option key={part} value={part}>
                {WAY_PART_FACTS[part].words}
              </option>
            ))}
          </select>
        </Field>
      </div>
      {differ !== "" &&
        (["value_a", "value_b"] as const).map((name) => (
          <div key={name} className="sm:col-span-2">
            <Field id={name} label={name === "value_a" ? "A is" : "B is"} error={error(name)}>
              <select {...register(name)} {...tied(name, error(name))} className="field-box">
                <option value="">choose one</option>
                {values.map((value) => (
                  <option key={value} value={value}>
                    {wayValueWords(differ, value)}
                  </option>
                ))}
              </select>
            </Field>
          </div>
        ))}
      <div className="sm:col-span-4 sm:col-start-1">
        <Field id="try-ladder" label="Behaviour" error={error("ladder")}>
          <select
            {...register("ladder", {
              onChange: (event) => setValue("rung", ladders.find(({ id }) => id === event.target.value)?.rung ?? 1),
            })}
            {...tied("try-ladder", error("ladder"))}
            className="field-box"
          >
            {free.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="try-rung" label="Rung" hint="It stays on this one" error={error("rung")}>
          <select {...register("rung")} {...tied("try-rung", error("rung"))} className="field-box figures">
            {Array.from({ length: ladder?.rungs ?? 1 }, (_, i) => (
              <option key={i} value={i + 1}>
                {i + 1}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <div className="sm:col-span-6">
        <Field id="try-counts" label="What counts" hint={COUNTED_WORDS[counts]?.help} error={error("counts")}>
          <select {...register("counts")} {...tied("try-counts", error("counts"))} className="field-box">
            {COUNTED.map((one) => (
              <option key={one} value={one}>
                {COUNTED_WORDS[one].name}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="try-blocks" label="Blocks" hint="Half of them A, half B" error={error("blocks")}>
          <select {...register("blocks")} {...tied("try-blocks", error("blocks"))} className="field-box figures">
            {Array.from({ length: (BLOCKS.most - BLOCKS.least) / 2 + 1 }, (_, i) => BLOCKS.least + 2 * i).map((n) => (
              <option key={n} value={n}>
                {n}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="try-alike" label="The same" error={error("most_alike")}>
          <select {...register("most_alike")} {...tied("try-alike", error("most_alike"))} className="field-box">
            {([1, 2, 3] as const).map((n) => (
              <option key={n} value={n}>
                {RUNNING_WORDS[n]}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="try-asks" label="Asks a block" error={error("asks_each")}>
          <input {...register("asks_each")} {...tied("try-asks", error("asks_each"))} inputMode="numeric" className="field-box figures" />
        </Field>
      </div>
      <p className="sm:col-span-6" role="status" data-testid="promise">
        {counted(Number(blocks) * Number(asks) || 0, "ask")} in all.{" "}
        <PromiseWords promised={promised} spread={ladder?.spreads[counts] ?? null} counts={counts} />
      </p>
      <p className="text-sm text-soft sm:col-span-6">
        Everything else stays alike: place, person, rung. Stop at any time for the horse; cut short it gives its counts, and says nothing of
        which is better. Which is due is drawn and not chosen.
      </p>
      <FormEnd label="Draw the order" busy={busy} problem={problem} />
    </form>
  );
}
