"use client";

import { yupResolver } from "@hookform/resolvers/yup";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { HORSE_SEXES, type HorseInput, horseSchema } from "@/core/schemas";
import { Field, send, tied } from "@/ui/form";

const EMPTY: HorseInput = {
  name: "",
  birth_year: null,
  sex: null,
  kind: "",
  height_cm: null,
  mass_kg: null,
  history: "",
  restrictions: "",
};

/** Adds a horse, or edits one. */
export function HorseForm({ year, id, horse }: { year: number; id?: string; horse?: HorseInput }) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const { register, handleSubmit, setError, formState } = useForm<HorseInput>({
    defaultValues: horse ?? EMPTY,
    resolver: yupResolver(horseSchema, { context: { year } }) as never,
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
        <Field id="birth_year" label="Birth year" hint="For example 2017" error={error("birth_year")}>
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
      <div className="sm:col-span-6">
        <Field id="kind" label="Kind" hint="Breed, type, colour" error={error("kind")}>
          <input {...register("kind")} {...tied("kind", error("kind"))} className="field-box" />
        </Field>
      </div>
      <div className="sm:col-span-6">
        <Field id="history" label="History" hint="Handling so far, what worries it, what it likes" error={error("history")}>
          <textarea {...register("history")} {...tied("history", error("history"))} rows={4} className="field-box" />
        </Field>
      </div>
      <div className="sm:col-span-6">
        <Field
          id="restrictions"
          label="Restrictions"
          hint="Injury, and what the veterinarian or farrier has said. Shown wherever the horse is worked."
          error={error("restrictions")}
        >
          <textarea {...register("restrictions")} {...tied("restrictions", error("restrictions"))} rows={2} className="field-box" />
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
