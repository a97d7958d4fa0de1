"use client";

import { useRouter } from "next/navigation";
import { HORSE_SEXES, type HorseInput, horseSchema } from "@/core/schemas";
import { restingQuestion } from "@/core/welfare";
import { FormEnd, SentChoice, SentInput, SentText, savedUnder, useSentForm } from "@/ui/form";

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
  const form = useSentForm<HorseInput>({
    schema: horseSchema,
    start: horse ?? EMPTY,
    context: { today },
    target: savedUnder("/api/horses", id),
    onSaved: (saved) => router.push(`/horses/${saved}/know`),
  });
  const typedBreaths = Number(form.watch("resting_breaths_per_min") ?? 0);
  return (
    <form onSubmit={form.submit} noValidate className="grid max-w-3xl gap-5 sm:grid-cols-6">
      <SentInput form={form} name="name" label="Name" span={4} autoComplete="off" />
      <SentChoice form={form} name="sex" label="Sex" span={2} mayBeNothing empty="not said" options={HORSE_SEXES} />
      <SentInput
        form={form}
        name="born_day"
        label="Born"
        hint="The day, if it is known"
        span={2}
        mayBeNothing
        type="date"
        max={today}
        figures
      />
      <SentInput
        form={form}
        name="birth_year"
        label="Birth year"
        hint="Or the year alone, for example 2017"
        span={2}
        mayBeNothing
        inputMode="numeric"
        figures
      />
      <SentInput form={form} name="height_cm" label="Height, cm" hint="At the withers" span={2} mayBeNothing inputMode="decimal" figures />
      <SentInput form={form} name="mass_kg" label="Mass, kg" hint="Weighed or taped" span={2} mayBeNothing inputMode="decimal" figures />
      <SentInput form={form} name="kind" label="Kind" hint="Breed, type, colour" span={2} />
      <SentText form={form} name="history" label="History" hint="Handling so far, injuries, who had it" rows={4} />
      <SentText form={form} name="triggers" label="What worries it" hint="Things, places, handling" span={3} rows={2} />
      <SentText
        form={form}
        name="preferred_reinforcers"
        label="What it works for"
        hint="Food it likes, where it likes a scratch, rest"
        span={3}
        rows={2}
      />
      <SentInput
        form={form}
        name="resting_breaths_per_min"
        label="Resting breathing, a minute"
        hint={restingQuestion(typedBreaths > 0 ? typedBreaths : null) ?? "Or count it under Signs"}
        span={3}
        mayBeNothing
        inputMode="decimal"
        figures
      />
      <SentInput
        form={form}
        name="resting_heart_per_min"
        label="Resting heart, a minute"
        span={3}
        mayBeNothing
        inputMode="decimal"
        figures
      />
      <label className="flex items-start gap-3 sm:col-span-6">
        <input type="checkbox" {...form.register("bears_heat_badly")} className="mt-1 size-6 shrink-0 accent-(--tarn)" />
        <span>
          <span className="font-semibold">Bears heat badly</span>
          <span className="block text-sm text-soft">
            Unfit, fat, thick-coated, sweats poorly, newly arrived, or trouble with its airways. Its limits of heat then lie 3 °C lower.
            Foals and horses of 20 and over have that anyway.
          </span>
        </span>
      </label>
      <FormEnd label={id === undefined ? "Add the horse" : "Save"} busy={form.busy} problem={form.problem} />
    </form>
  );
}
