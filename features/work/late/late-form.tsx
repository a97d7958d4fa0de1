"use client";

import { Choice, Field, named, Problem, TextBox, tied } from "@/ui/form";
import { BlockFields } from "./block-fields";
import { MOST_LATE_BLOCKS } from "./late-values";
import { type LateStart, localMinute, useLateForm } from "./use-late-form";

/** A session from memory or paper: blocks with counts, phases and rough times. */
export function LateForm(start: LateStart) {
  const { form, rows, another, message, busy, kept, submit } = useLateForm(start);
  const { register, setValue, formState } = form;
  const { errors } = formState;
  const typed = form.watch("rows");
  return (
    <form
      noValidate
      className="max-w-3xl"
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      <h1 className="text-[2rem]">Write a session down</h1>
      <p className="mt-1 mb-5 max-w-prose text-soft">
        From memory or paper. It is marked as written later and left out of every measure of timing. The order inside a block is not asked
        for; the answers are spread evenly.
      </p>
      <div className="grid gap-4 sm:grid-cols-3">
        <Field id="when" label="Began" error={errors.when?.message}>
          <input
            {...tied("when", errors.when?.message)}
            type="datetime-local"
            max={localMinute(start.nowMs)}
            className="field-box figures"
            {...register("when")}
          />
        </Field>
        <Choice id="late-handler" label="Handler" empty="not said" options={named(start.people)} {...register("person")} />
        <Choice id="late-place" label="Place" empty="not said" options={named(start.places)} {...register("place")} />
      </div>
      {rows.fields.map(({ id }, at) => {
        const row = typed[at];
        return row === undefined ? null : (
          <BlockFields
            key={id}
            at={at}
            row={row}
            ladders={start.ladders}
            problem={errors.rows?.[at]?.message}
            register={register}
            setValue={setValue}
            takeAway={typed.length > 1 ? () => rows.remove(at) : null}
          />
        );
      })}
      <button type="button" className="act-quiet mt-4" disabled={typed.length >= MOST_LATE_BLOCKS} onClick={another}>
        Another block
      </button>
      <div className="mt-6 grid gap-4 sm:grid-cols-2">
        <TextBox label="What was better" maxLength={300} {...register("better")} />
        <TextBox label="What to do next time" maxLength={300} {...register("next")} />
      </div>
      <Problem className="mt-4">{message}</Problem>
      <button type="submit" className="act mt-5 min-h-16 px-8 text-xl" disabled={busy}>
        {kept ? "To the review" : "Save the session"}
      </button>
    </form>
  );
}
