"use client";

import { memo } from "react";
import { useFormState } from "react-hook-form";
import { MOVEMENTS } from "@/core/cues";
import { INVOLVEMENTS } from "@/core/welfare";
import { Field, tied } from "@/ui/form";
import { type RestingChoice, RestsOnFields } from "./rests-on-fields";
import { type DraftForm, errorAt } from "./use-draft";

const INVOLVEMENT_WORDS = {
  circling: "circling",
  tying: "standing tied",
  loading: "loading, or a narrow way in",
  load: "carrying or drawing",
  legs: "handling the legs",
} as const;

export const BehaviourText = memo(function BehaviourText({
  form,
  name,
  label,
  hint,
}: {
  form: DraftForm;
  name: "name" | "finished" | "cue" | "why";
  label: string;
  hint: string;
}) {
  useFormState({ control: form.control });
  const path = `behaviour.${name}` as const;
  const error = errorAt(form, path);
  return (
    <Field id={path} label={label} error={error}>
      <input {...form.register(path)} {...tied(path, error)} className="field-box" placeholder={hint} autoComplete="off" />
    </Field>
  );
});

/** What the behaviour is, beside its name and cue. */
export function BehaviourFields({
  form,
  choices,
  names,
}: {
  form: DraftForm;
  choices: readonly RestingChoice[];
  names: Readonly<Record<string, string>>;
}) {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4 sm:grid-cols-2">
      <BehaviourText form={form} name="finished" label="Finished, it looks like" hint="What anyone could see" />
      <BehaviourText form={form} name="why" label="Why" hint="What it is good for" />
      <Field id="behaviour.movement" label="The cue asks the horse to" hint="So that two cues do not contradict each other">
        <select
          id="behaviour.movement"
          aria-describedby="behaviour.movement-hint"
          {...form.register("behaviour.movement")}
          className="field-box"
        >
          {MOVEMENTS.map((movement) => (
            <option key={movement}>{movement}</option>
          ))}
        </select>
      </Field>
      <label className="flex min-h-10 items-center gap-2 self-center">
        <input type="checkbox" {...form.register("behaviour.free")} className="size-5 accent-(--tarn)" />
        Worked free, without a line
      </label>
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
      <RestsOnFields form={form} choices={choices} names={names} />
    </div>
  );
}
