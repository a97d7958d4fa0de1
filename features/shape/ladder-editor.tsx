"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { METHODS, OFFER_RULES } from "@/core/ladder";
import { criterionParts } from "@/core/strands";
import { type Allowance, barredBehaviour, barredMethod, barredRung, INVOLVEMENTS } from "@/core/welfare";
import { Field, tied } from "@/ui/form";
import { StrandChart } from "@/ui/strand-chart";
import type { LadderDraft } from "./draft";
import { MasteryFields } from "./mastery-fields";
import { PhaseFields } from "./phase-fields";
import { RungGrid } from "./rung-grid";
import { errorAt, useDraft } from "./use-draft";

const METHOD_WORDS = {
  "pressure-release": "pressure and release",
  "marker-food": "marker and food",
  combined: "combined: release, mark and food",
} as const;
const OFFER_WORDS = { reinforce: "reinforce it: it is still growing", ignore: "ignore it", settle: "settle first, then ask" } as const;

const INVOLVEMENT_WORDS = {
  circling: "circling",
  tying: "standing tied",
  loading: "loading, or a narrow way in",
  load: "carrying or drawing",
  legs: "handling the legs",
} as const;

/** Lays a ladder out: the behaviour, its rungs, its cue, when it moves on. The chart follows what is typed. */
export function LadderEditor({
  start,
  horseId,
  ladderId,
  worked,
  allowance,
}: {
  start: LadderDraft;
  horseId: string;
  ladderId?: string;
  worked: boolean;
  /** What restrictions and age allow today: what they close is shown beside it. */
  allowance: Allowance;
}) {
  const router = useRouter();
  const [selected, setSelected] = useState(1);
  const { form, submit, problems } = useDraft(start, { horseId, ladderId }, (id) => {
    router.push(`/horses/${horseId}/shape/${id}`);
    router.refresh();
  });
  const plan = form.watch("plan");
  const rung = Math.min(selected, plan.rungs.length);
  const sentence = criterionParts(
    plan.strands,
    plan.rungs[rung - 1]?.values ?? {},
    plan.phases.map((p) => p.label),
  );
  const scheduleKind = form.watch("plan.schedule.kind");
  const involves = form.watch("behaviour.involves") ?? [];
  const implied = plan.strands.flatMap((strand) => (strand.key === "circle" ? ["circling"] : strand.key === "load" ? ["load"] : []));
  const closed = [
    barredBehaviour([...involves, ...implied], allowance),
    barredMethod(plan.method, allowance),
    ...barredRung(plan, rung, allowance).map(({ why }) => `Rung ${rung}: ${why}`),
  ].filter((why) => why !== null);
  const text = (name: "name" | "finished" | "cue" | "why", label: string, hint: string) => {
    const path = `behaviour.${name}` as const;
    const error = errorAt(form, path);
    return (
      <Field id={path} label={label} hint={hint} error={error}>
        <input {...form.register(path)} {...tied(path, error)} className="field-box" autoComplete="off" />
      </Field>
    );
  };
  const number = (path: "plan.maximumSeconds" | "plan.plannedRepetitions" | "plan.schedule.ratio", label: string) => {
    const error = errorAt(form, path);
    return (
      <Field id={path} label={label} error={error}>
        <input
          type="number"
          step="any"
          {...form.register(path as never, { valueAsNumber: true })}
          {...tied(path, error)}
          className="field-box figures"
        />
      </Field>
    );
  };
  return (
    <form onSubmit={submit} noValidate className="grid grid-cols-[minmax(0,1fr)] gap-9">
      {worked && (
        <p className="border-l-4 border-ochre pl-4">
          This ladder has been worked. Saving a change makes a new version; trials so far stay with the old one, and evidence starts again.
        </p>
      )}
      <section className="grid gap-4 sm:grid-cols-2" aria-label="The behaviour">
        {text("name", "Behaviour", "For example: steps back from a light touch")}
        {text("cue", "Cue", "What you will use in the end")}
        {text("finished", "Finished, it looks like", "What anyone could see")}
        {text("why", "Why", "What it is good for")}
        <fieldset className="sm:col-span-2">
          <legend className="mb-1 font-semibold">It involves</legend>
          <div className="flex flex-wrap gap-x-6 gap-y-1">
            {INVOLVEMENTS.map((one) => (
              <label key={one} className="flex min-h-10 items-center gap-2">
                <input type="checkbox" value={one} {...form.register("behaviour.involves")} className="size-5 accent-(--tarn)" />
                {INVOLVEMENT_WORDS[one]}
              </label>
            ))}
          </div>
          <p className="text-sm text-soft">So that the horse's limits reach it.</p>
        </fieldset>
        {closed.length > 0 && (
          <div role="status" className="border-l-4 border-brick pl-4 font-semibold text-brick sm:col-span-2">
            {closed.map((why) => (
              <p key={why}>Not today. {why}</p>
            ))}
          </div>
        )}
      </section>
      <section>
        <h2 className="mb-1 text-xl">Rungs</h2>
        <p className="mb-4 min-h-8 text-lg" aria-live="polite">
          <span className="text-soft">Rung {rung}: </span>
          {sentence.map((part, i) => (part.strong ? <strong key={`${i}-${part.text}`}>{part.text}</strong> : part.text))}
        </p>
        <StrandChart
          plan={plan}
          evidence={[]}
          here={null}
          selected={rung}
          onSelect={setSelected}
          barred={plan.rungs.flatMap((_, i) => (barredRung(plan, i + 1, allowance).length > 0 ? [i + 1] : []))}
        />
        <RungGrid form={form} />
      </section>
      <section>
        <h2 className="mb-3 text-xl">The ask, lightest first</h2>
        <PhaseFields form={form} />
      </section>
      <section className="grid gap-4 sm:grid-cols-4">
        <h2 className="text-xl sm:col-span-4">How it goes</h2>
        <div className="sm:col-span-2">
          <Field id="plan.method" label="Method">
            <select id="plan.method" {...form.register("plan.method")} className="field-box">
              {METHODS.map((method) => (
                <option key={method} value={method} disabled={barredMethod(method, allowance) !== null}>
                  {METHOD_WORDS[method]}
                  {barredMethod(method, allowance) === null ? "" : " (no food today)"}
                </option>
              ))}
            </select>
          </Field>
        </div>
        <div className="sm:col-span-2">
          <Field id="plan.offers" label="An answer nobody asked for">
            <select id="plan.offers" {...form.register("plan.offers")} className="field-box">
              {OFFER_RULES.map((rule) => (
                <option key={rule} value={rule}>
                  {OFFER_WORDS[rule]}
                </option>
              ))}
            </select>
          </Field>
        </div>
        <Field id="schedule-kind" label="Reinforced">
          <select
            {...tied("schedule-kind", undefined)}
            value={scheduleKind}
            onChange={(event) =>
              form.setValue("plan.schedule", event.target.value === "fixed" ? { kind: "fixed", ratio: 2 } : { kind: "every" })
            }
            className="field-box"
          >
            <option value="every">every met one</option>
            <option value="fixed">every nth</option>
          </select>
        </Field>
        {scheduleKind === "fixed" && number("plan.schedule.ratio", "n")}
        {number("plan.maximumSeconds", "Longest ask, s")}
        {number("plan.plannedRepetitions", "Repetitions a block")}
        <Field id="plan.workingStrandId" label="Counted strand" hint="Its value is measured" error={errorAt(form, "plan.workingStrandId")}>
          <select
            id="plan.workingStrandId"
            {...form.register("plan.workingStrandId", {
              setValueAs: (value: string | null) => (value === "" || value === null ? null : value),
            })}
            className="field-box"
          >
            <option value="">none</option>
            {plan.strands
              .filter((strand) => strand.kind === "number" && strand.key !== "latency" && strand.key !== "lightness")
              .map((strand) => (
                <option key={strand.id} value={strand.id}>
                  {strand.name}
                </option>
              ))}
          </select>
        </Field>
        <div className="sm:col-span-4">
          <MasteryFields form={form} />
        </div>
      </section>
      <div>
        <button type="submit" className="act text-lg" disabled={form.formState.isSubmitting}>
          {ladderId === undefined ? "Make the ladder" : "Save"}
        </button>
        {problems.length > 0 && (
          <div role="alert" className="mt-4 border-l-4 border-brick pl-4 text-brick">
            <p className="font-semibold">Not saved yet:</p>
            <ul className="list-disc pl-5">
              {[...new Set(problems)].slice(0, 8).map((problem) => (
                <li key={problem}>{problem}</li>
              ))}
            </ul>
          </div>
        )}
      </div>
    </form>
  );
}
