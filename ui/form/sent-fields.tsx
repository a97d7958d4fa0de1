import type { ComponentProps, ReactNode } from "react";
import type { FieldPath, FieldValues, RegisterOptions, UseFormRegister } from "react-hook-form";
import { type Option, Options } from "./controls";
import { Field, tied } from "./field";
import { orNothing } from "./use-sent-form";

/** Of a grid of six columns. */
const SPANS = { 2: "sm:col-span-2", 3: "sm:col-span-3", 4: "sm:col-span-4", 6: "sm:col-span-6" } as const;

/** What a field needs of its form: see useSentForm. */
export interface FieldsOf<T extends FieldValues> {
  readonly register: UseFormRegister<T>;
  readonly error: (name: FieldPath<T>) => string | undefined;
}

interface SentField<T extends FieldValues> {
  readonly form: FieldsOf<T>;
  readonly name: FieldPath<T>;
  /** Its id on the page where another form has a field of that name. */
  readonly id?: string;
  readonly label: string;
  readonly hint?: string;
  readonly span?: keyof typeof SPANS;
  /** Whether left empty it is nothing, rather than an empty text. */
  readonly mayBeNothing?: boolean;
  readonly rules?: RegisterOptions<T, FieldPath<T>>;
}

/** The box of one field: label, hint, what is wrong with it; and what ties its input to the form. */
function boxOf<T extends FieldValues>({ form, name, id = name, label, hint, span = 6, mayBeNothing = false, rules }: SentField<T>) {
  const error = form.error(name);
  const props = {
    ...form.register(name, { ...(mayBeNothing ? orNothing : {}), ...rules } as RegisterOptions<T, FieldPath<T>>),
    ...tied(id, error),
  };
  const box = (input: ReactNode) => (
    <div className={SPANS[span]}>
      <Field id={id} label={label} hint={hint} error={error}>
        {input}
      </Field>
    </div>
  );
  return { props, box };
}

/** A field of a form that is sent: one line. `figures` where it holds a number or a day. */
export function SentInput<T extends FieldValues>({
  form,
  name,
  id,
  label,
  hint,
  span,
  mayBeNothing,
  rules,
  figures = false,
  ...rest
}: SentField<T> & { readonly figures?: boolean } & Omit<ComponentProps<"input">, "name" | "id" | "form" | "className">) {
  const { props, box } = boxOf({ form, name, id, label, hint, span, mayBeNothing, rules });
  return box(<input {...rest} {...props} className={`field-box ${figures ? "figures" : ""}`} />);
}

/** A field of a form that is sent: several lines. */
export function SentText<T extends FieldValues>({ rows, ...field }: SentField<T> & { readonly rows: number }) {
  const { props, box } = boxOf(field);
  return box(<textarea {...props} rows={rows} className="field-box" />);
}

/** A field of a form that is sent: one of several. */
export function SentChoice<T extends FieldValues>({
  options,
  empty,
  figures = false,
  ...field
}: SentField<T> & { readonly options: readonly Option[]; readonly empty?: string; readonly figures?: boolean }) {
  const { props, box } = boxOf(field);
  return box(
    <select {...props} className={`field-box ${figures ? "figures" : ""}`}>
      <Options options={options} empty={empty} />
    </select>,
  );
}
