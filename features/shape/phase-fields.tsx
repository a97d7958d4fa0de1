"use client";

import { Plus, Trash2 } from "lucide-react";
import { useFieldArray } from "react-hook-form";
import { CUE_KINDS, MOST_CUE_PHASES, PRESSURE_PROFILES } from "@/core/cues";
import { type DraftForm, errorAt } from "./use-draft";

/** The cue ladder: up to five phases, lightest first. */
export function PhaseFields({ form }: { form: DraftForm }) {
  const phases = useFieldArray({ control: form.control, name: "plan.phases" as never });
  const plan = form.watch("plan");
  return (
    <div>
      <ol className="grid gap-3">
        {phases.fields.map((field, i) => {
          const path = (name: string) => `plan.phases.${i}.${name}` as never;
          const error =
            errorAt(form, `plan.phases.${i}.label`) ??
            errorAt(form, `plan.phases.${i}.dwellSeconds`) ??
            errorAt(form, `plan.phases.${i}.pulsesPerMinute`);
          return (
            <li
              key={field.id}
              className="grid grid-cols-[1.6rem_1fr_2.5rem] items-center gap-2 sm:grid-cols-[1.6rem_1.4fr_1fr_1fr_6rem_2.5rem]"
            >
              <span className="figures font-head text-lg font-bold text-ochre">{i + 1}</span>
              <input
                {...form.register(path("label"))}
                aria-label={`Phase ${i + 1}, name`}
                aria-invalid={errorAt(form, `plan.phases.${i}.label`) !== undefined}
                className="field-box max-sm:col-span-1"
              />
              <select {...form.register(path("kind"))} aria-label={`Phase ${i + 1}, kind`} className="field-box max-sm:col-start-2">
                {CUE_KINDS.map((kind) => (
                  <option key={kind}>{kind}</option>
                ))}
              </select>
              <select {...form.register(path("profile"))} aria-label={`Phase ${i + 1}, pressure`} className="field-box max-sm:col-start-2">
                {PRESSURE_PROFILES.map((profile) => (
                  <option key={profile}>{profile}</option>
                ))}
              </select>
              <span className="flex items-center gap-1 max-sm:col-start-2">
                <input
                  type="number"
                  step="any"
                  {...form.register(path("dwellSeconds"), { valueAsNumber: true })}
                  aria-label={`Phase ${i + 1}, held for seconds`}
                  aria-invalid={errorAt(form, `plan.phases.${i}.dwellSeconds`) !== undefined}
                  className="field-box figures"
                />
                s
              </span>
              <button
                type="button"
                aria-label={`Remove phase ${i + 1}`}
                disabled={phases.fields.length === 1}
                onClick={() => phases.remove(i)}
                className="grid size-9 place-items-center rounded text-soft hover:bg-paper disabled:opacity-30 max-sm:col-start-3 max-sm:row-start-1"
              >
                <Trash2 size={16} />
              </button>
              {error !== undefined && <p className="col-span-full text-sm font-semibold text-brick">{error}</p>}
            </li>
          );
        })}
      </ol>
      <button
        type="button"
        className="act-quiet mt-3"
        disabled={plan.phases.length >= MOST_CUE_PHASES}
        onClick={() => phases.append({ label: "", kind: "touch", profile: "steady", dwellSeconds: 3, pulsesPerMinute: null } as never)}
      >
        <Plus size={18} aria-hidden="true" /> Phase
      </button>
    </div>
  );
}
