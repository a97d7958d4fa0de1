"use client";

import { Field, tied } from "@/ui/form";
import { type DraftForm, errorAt } from "./use-draft";

/** A number of the form, with its error beneath it; an empty box is nothing where `optional`. */
export function FormNumber({
  form,
  path,
  label,
  hint,
  optional = false,
}: {
  form: DraftForm;
  path: string;
  label: string;
  hint?: string;
  optional?: boolean;
}) {
  const error = errorAt(form, path);
  const read = optional
    ? { setValueAs: (value: unknown) => (value === "" || value === null || value === undefined ? null : Number(value)) }
    : { valueAsNumber: true };
  return (
    <Field id={path} label={label} hint={hint} error={error}>
      <input
        type="number"
        step="any"
        {...form.register(path as never, read as never)}
        {...tied(path, error)}
        className="field-box figures"
      />
    </Field>
  );
}
