"use client";

import { Plus, Trash2 } from "lucide-react";
import { useFieldArray } from "react-hook-form";
import { CUE_KINDS, type CueClash, MOST_CUE_PHASES, PRESSURE_PROFILES, type TransferProgress } from "@/core/cues";
import { Field } from "@/ui/form";
import { FormNumber } from "./form-number";
import { type DraftForm, errorAt } from "./use-draft";

const PROFILE_WORDS = { steady: "steady", rising: "rising", pulse: "in a pulse" } as const;

function Phase({ form, index, only, onRemove }: { form: DraftForm; index: number; only: boolean; onRemove: () => void }) {
  const path = (name: string) => `plan.phases.${index}.${name}` as never;
  const profile = form.watch(`plan.phases.${index}.profile`);
  const errors = ["label", "kind", "profile", "dwellSeconds", "pulsesPerMinute"].map((name) =>
    errorAt(form, `plan.phases.${index}.${name}`),
  );
  const error = errors.find((one) => one !== undefined);
  const number = index + 1;
  return (
    <li className="grid grid-cols-[1.6rem_1fr_2.5rem] items-center gap-2 sm:grid-cols-[1.6rem_1.4fr_1fr_1fr_6rem_7.5rem_2.5rem]">
      <span className="figures font-head text-lg font-bold text-ochre">{number}</span>
      <input
        {...form.register(path("label"))}
        aria-label={`Phase ${number}, name`}
        aria-invalid={errors[0] !== undefined}
        autoComplete="off"
        className="field-box max-sm:col-span-1"
      />
      <select {...form.register(path("kind"))} aria-label={`Phase ${number}, kind`} className="field-box max-sm:col-start-2">
        {CUE_KINDS.map((kind) => (
          <option key={kind}>{kind}</option>
        ))}
      </select>
      <select
        {...form.register(path("profile"), {
          onChange: (event: { target: { value: string } }) => {
            // A pulse is nothing without its beats; any other pressure has none.
            const beats = event.target.value === "pulse" ? (form.getValues(`plan.phases.${index}.pulsesPerMinute`) ?? 80) : null;
            form.setValue(`plan.phases.${index}.pulsesPerMinute`, beats, { shouldDirty: true });
          },
        })}
        aria-label={`Phase ${number}, pressure`}
        className="field-box max-sm:col-start-2"
      >
        {PRESSURE_PROFILES.map((one) => (
          <option key={one} value={one}>
            {PROFILE_WORDS[one]}
          </option>
        ))}
      </select>
      <span className="flex items-center gap-1 max-sm:col-start-2">
        <input
          type="number"
          step="any"
          {...form.register(path("dwellSeconds"), { valueAsNumber: true })}
          aria-label={`Phase ${number}, held for seconds`}
          aria-invalid={errors[3] !== undefined}
          className="field-box figures"
        />
        s
      </span>
      <span className="flex items-center gap-1 text-sm max-sm:col-start-2">
        {profile === "pulse" && (
          <>
            <input
              type="number"
              step="any"
              {...form.register(path("pulsesPerMinute"), {
                setValueAs: (value: unknown) => (value === "" || value === null ? null : Number(value)),
              } as never)}
              aria-label={`Phase ${number}, beats a minute`}
              aria-invalid={errors[4] !== undefined}
              className="field-box figures"
            />
            a min
          </>
        )}
      </span>
      <button
        type="button"
        aria-label={`Take out phase ${number}`}
        disabled={only}
        onClick={onRemove}
        className="grid size-9 place-items-center rounded text-soft hover:bg-paper disabled:opacity-30 max-sm:col-start-3 max-sm:row-start-1"
      >
        <Trash2 size={16} />
      </button>
      {error !== undefined && (
        <p role="alert" className="col-span-full text-sm font-semibold text-brick">
          {error}
        </p>
      )}
    </li>
  );
}

/** The cue ladder: its phases lightest first, what holds it, and a new cue on its way in. */
export function PhaseFields({
  form,
  clashes,
  transferred,
}: {
  form: DraftForm;
  /** Cues of the horse's other behaviours that get in the way of this one. */
  clashes: readonly CueClash[];
  /** How far the new cue has taken over, where the ladder was worked. */
  transferred: TransferProgress | null;
}) {
  const phases = useFieldArray({ control: form.control, name: "plan.phases" as never });
  const transfer = form.watch("plan.transfer");
  const count = phases.fields.length;
  const labels = form.watch("plan.phases").map(({ label }) => label);
  return (
    <div className="grid gap-5">
      <ol className="grid gap-3">
        {phases.fields.map((field, i) => (
          <Phase key={field.id} form={form} index={i} only={count === 1} onRemove={() => phases.remove(i)} />
        ))}
      </ol>
      <div className="flex flex-wrap gap-3">
        <button
          type="button"
          className="act-quiet"
          disabled={count >= MOST_CUE_PHASES}
          onClick={() => phases.append({ label: "", kind: "touch", profile: "steady", dwellSeconds: 3, pulsesPerMinute: null } as never)}
        >
          <Plus size={18} aria-hidden="true" /> Phase
        </button>
        {transfer === null && count < MOST_CUE_PHASES && (
          <button
            type="button"
            className="act-quiet"
            onClick={() => {
              phases.prepend({ label: "new cue", kind: "voice", profile: "steady", dwellSeconds: 2, pulsesPerMinute: null } as never);
              form.setValue("plan.transfer", { gapSeconds: 1.5 }, { shouldDirty: true });
            }}
          >
            <Plus size={18} aria-hidden="true" /> A new cue in front
          </button>
        )}
      </div>
      {clashes.length > 0 && (
        <div role="status" className="border-l-4 border-ochre pl-4">
          {clashes.map(({ sentence }) => (
            <p key={sentence} className="font-semibold">
              {sentence}
            </p>
          ))}
          <p className="text-sm text-soft">One cue, one meaning: a horse cannot tell them apart.</p>
        </div>
      )}
      <div className="grid items-start gap-4 sm:grid-cols-4">
        <FormNumber form={form} path="plan.maximumSeconds" label="Longest ask, s" hint="Then help to any smaller answer, and release" />
        <FormNumber
          form={form}
          path="plan.firstTouchCentimetres"
          label="First touch from, cm"
          hint="How near before the touch comes"
          optional
        />
        <Field id="plan.holdOnWrong" label="On a wrong answer">
          <select
            id="plan.holdOnWrong"
            value={form.watch("plan.holdOnWrong") ? "hold" : "go-on"}
            onChange={(event) => form.setValue("plan.holdOnWrong", event.target.value === "hold", { shouldDirty: true })}
            className="field-box"
          >
            <option value="hold">hold the level, no release</option>
            <option value="go-on">go on to the next phase</option>
          </select>
        </Field>
        {transfer !== null && (
          <div>
            <FormNumber
              form={form}
              path="plan.transfer.gapSeconds"
              label="Gap to the old cue, s"
              hint={`${labels[0] || "new cue"}, gap, ${labels[1] || "old cue"}`}
            />
            <button
              type="button"
              className="link mt-1 min-h-10"
              onClick={() => form.setValue("plan.transfer", null, { shouldDirty: true })}
            >
              No cue transfer
            </button>
          </div>
        )}
      </div>
      {errorAt(form, "plan.transfer") !== undefined && (
        <p role="alert" className="font-semibold text-brick">
          {errorAt(form, "plan.transfer")}
        </p>
      )}
      {transfer !== null && transferred !== null && <p className="border-l-4 border-tarn pl-4">{transferred.sentence}</p>}
    </div>
  );
}
