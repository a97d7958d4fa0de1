"use client";

import { yupResolver } from "@hookform/resolvers/yup";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { HORSE_SEXES, type HorseInput, horseSchema } from "@/core/schemas";
import { Field, send, tied } from "@/ui/form";

const EMPTY: HorseInput = {
  name: "",
  born_day: null,
  birth_year: null,
  sex: null,
  kind: "",
  height_cm: null,
  mass_kg: null,
  history: "",
  triggers: "",
  preferred_reinforcers: "",
  resting_breaths_per_min: null,
  resting_heart_per_min: null,
};

/** Adds a horse, or edits one. */
export function HorseForm({ today, id, horse }: { today: string; id?: string; horse?: HorseInput }) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const { register, handleSubmit, setError, formState } = useForm<HorseInput>({
    defaultValues: horse ?? EMPTY,
    resolver: yupResolver(horseSchema, { context: { today } }) as never,
  });
  const { errors, isSubmitting } = formState;
  const onSubmit = handleSubmit(async (values) => {
    setProblem(null);
    const sent = await send<{ id: string }>(
      id === undefined ? "POST" : "PUT",
      id === undefined ? "/api/horses" : `/api/horses/${id}`,
      values,
    );
    if (sent.ok) {
      router.push(`/horses/${sent.value.id}/know`);
      router.refresh();
      return;
    }
    for (const { path, message } of sent.fields) setError(path as keyof HorseInput, { message });
    setProblem(sent.message);
  });
  const error = (name: keyof HorseInput) => errors[name]?.message;
  const empty = { setValueAs: (value: unknown) => (value === "" || value === null ? null : value) };
  return (
    <form onSubmit={onSubmit} noValidate className="grid max-w-3xl gap-5 sm:grid-cols-6">
      <div className="sm:col-span-4">
        <Field id="name" label="Name" error={error("name")}>
          <input {...register("name")} {...tied("name", error("name"))} className="field-box text-lg" autoComplete="off" />
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="sex" label="Sex" error={error("sex")}>
          <select {...register("sex", empty)} {...tied("sex", error("sex"))} className="field-box">
            <option value="">not said</option>
            {HORSE_SEXES.map((sex) => (
              <option key={sex}>{sex}</option>
            ))}
          </select>
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="born_day" label="Born" hint="The day, if it is known" error={error("born_day")}>
          <input
            type="date"
            {...register("born_day", empty)}
            {...tied("born_day", error("born_day"))}
            max={today}
            className="field-box figures"
          />
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="birth_year" label="Birth year" hint="Or the year alone, for example 2017" error={error("birth_year")}>
          <input
            {...register("birth_year", empty)}
            {...tied("birth_year", error("birth_year"))}
            inputMode="numeric"
            className="field-box figures"
          />
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="height_cm" label="Height, cm" hint="At the withers" error={error("height_cm")}>
          <input
            {...register("height_cm", empty)}
            {...tied("height_cm", error("height_cm"))}
            inputMode="decimal"
            className="field-box figures"
          />
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="mass_kg" label="Mass, kg" hint="Weighed or taped" error={error("mass_kg")}>
          <input {...register("mass_kg", empty)} {...tied("mass_kg", error("mass_kg"))} inputMode="decimal" className="field-box figures" />
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="kind" label="Kind" hint="Breed, type, colour" error={error("kind")}>
          <input {...register("kind")} {...tied("kind", error("kind"))} className="field-box" />
        </Field>
      </div>
      <div className="sm:col-span-6">
        <Field id="history" label="History" hint="Handling so far, injuries, who had it" error={error("history")}>
          <textarea {...register("history")} {...tied("history", error("history"))} rows={4} className="field-box" />
        </Field>
      </div>
      <div className="sm:col-span-3">
        <Field id="triggers" label="What worries it" hint="Things, places, handling" error={error("triggers")}>
          <textarea {...register("triggers")} {...tied("triggers", error("triggers"))} rows={2} className="field-box" />
        </Field>
      </div>
      <div className="sm:col-span-3">
        <Field
          id="preferred_reinforcers"
          label="What it works for"
          hint="Food it likes, where it likes a scratch, rest"
          error={error("preferred_reinforcers")}
        >
          <textarea
            {...register("preferred_reinforcers")}
            {...tied("preferred_reinforcers", error("preferred_reinforcers"))}
            rows={2}
            className="field-box"
          />
        </Field>
      </div>
      <div className="sm:col-span-3">
        <Field
          id="resting_breaths_per_min"
          label="Resting breathing, a minute"
          hint="Or count it under Signs"
          error={error("resting_breaths_per_min")}
        >
          <input
            {...register("resting_breaths_per_min", empty)}
            {...tied("resting_breaths_per_min", error("resting_breaths_per_min"))}
            inputMode="decimal"
            className="field-box figures"
          />
        </Field>
      </div>
      <div className="sm:col-span-3">
        <Field id="resting_heart_per_min" label="Resting heart, a minute" error={error("resting_heart_per_min")}>
          <input
            {...register("resting_heart_per_min", empty)}
            {...tied("resting_heart_per_min", error("resting_heart_per_min"))}
            inputMode="decimal"
            className="field-box figures"
          />
        </Field>
      </div>
      <div className="flex flex-wrap items-center gap-4 sm:col-span-6">
        <button type="submit" className="act" disabled={isSubmitting}>
          {id === undefined ? "Add the horse" : "Save"}
        </button>
        {problem !== null && (
          <p role="alert" className="font-semibold text-brick">
            {problem}
          </p>
        )}
      </div>
    </form>
  );
}
