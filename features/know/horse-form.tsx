"use client";

import { useRouter } from "next/navigation";
import { HORSE_SEXES, type HorseInput, horseSchema } from "@/core/schemas";
import { restingQuestion } from "@/core/welfare";
import { Field, FormEnd, orNothing, savedUnder, tied, useSentForm } from "@/ui/form";

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
  bears_heat_badly: false,
};

/** Adds a horse, or edits one. */
export function HorseForm({ today, id, horse }: { today: string; id?: string; horse?: HorseInput }) {
  const router = useRouter();
  const { register, submit, error, problem, busy, watch } = useSentForm<HorseInput>({
    schema: horseSchema,
    start: horse ?? EMPTY,
    context: { today },
    target: savedUnder("/api/horses", id),
    onSaved: (saved) => router.push(`/horses/${saved}/know`),
  });
  const typedBreaths = Number(watch("resting_breaths_per_min") ?? 0);
  return (
    <form onSubmit={submit} noValidate className="grid max-w-3xl gap-5 sm:grid-cols-6">
      <div className="sm:col-span-4">
        <Field id="name" label="Name" error={error("name")}>
          <input {...register("name")} {...tied("name", error("name"))} className="field-box text-lg" autoComplete="off" />
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="sex" label="Sex" error={error("sex")}>
          <select {...register("sex", orNothing)} {...tied("sex", error("sex"))} className="field-box">
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
            {...register("born_day", orNothing)}
            {...tied("born_day", error("born_day"))}
            max={today}
            className="field-box figures"
          />
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="birth_year" label="Birth year" hint="Or the year alone, for example 2017" error={error("birth_year")}>
          <input
            {...register("birth_year", orNothing)}
            {...tied("birth_year", error("birth_year"))}
            inputMode="numeric"
            className="field-box figures"
          />
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="height_cm" label="Height, cm" hint="At the withers" error={error("height_cm")}>
          <input
            {...register("height_cm", orNothing)}
            {...tied("height_cm", error("height_cm"))}
            inputMode="decimal"
            className="field-box figures"
          />
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="mass_kg" label="Mass, kg" hint="Weighed or taped" error={error("mass_kg")}>
          <input
            {...register("mass_kg", orNothing)}
            {...tied("mass_kg", error("mass_kg"))}
            inputMode="decimal"
            className="field-box figures"
          />
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
          hint={restingQuestion(typedBreaths > 0 ? typedBreaths : null) ?? "Or count it under Signs"}
          error={error("resting_breaths_per_min")}
        >
          <input
            {...register("resting_breaths_per_min", orNothing)}
            {...tied("resting_breaths_per_min", error("resting_breaths_per_min"))}
            inputMode="decimal"
            className="field-box figures"
          />
        </Field>
      </div>
      <div className="sm:col-span-3">
        <Field id="resting_heart_per_min" label="Resting heart, a minute" error={error("resting_heart_per_min")}>
          <input
            {...register("resting_heart_per_min", orNothing)}
            {...tied("resting_heart_per_min", error("resting_heart_per_min"))}
            inputMode="decimal"
            className="field-box figures"
          />
        </Field>
      </div>
      <label className="flex items-start gap-3 sm:col-span-6">
        <input type="checkbox" {...register("bears_heat_badly")} className="mt-1 size-6 shrink-0 accent-(--tarn)" />
        <span>
          <span className="font-semibold">Bears heat badly</span>
          <span className="block text-sm text-soft">
            Unfit, fat, thick-coated, sweats poorly, newly arrived, or trouble with its airways. Its limits of heat then lie 3 °C lower.
            Foals and horses of 20 and over have that anyway.
          </span>
        </span>
      </label>
      <FormEnd label={id === undefined ? "Add the horse" : "Save"} busy={busy} problem={problem} />
    </form>
  );
}
