"use client";

import { yupResolver } from "@hookform/resolvers/yup";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { type DefaultValues, type FieldPath, type FieldValues, useForm } from "react-hook-form";
import type * as yup from "yup";
import { send } from "./send";

/** Where a form goes: a new thing is posted, an old one put. */
export interface FormTarget {
  readonly method: "POST" | "PUT";
  readonly url: string;
}

/** A thing is posted to its list where it has no id yet, and put under its id where it has one. */
export const savedUnder = (list: string, id: string | undefined): FormTarget =>
  id === undefined ? { method: "POST", url: list } : { method: "PUT", url: `${list}/${id}` };

/**
 * A form checked by the same schema as its route, then sent. What the server
 * finds wrong lands at its field; nothing typed is lost.
 */
export function useSentForm<T extends FieldValues>(options: {
  schema: yup.Schema & { readonly fields: object };
  start: T;
  /** What the schema needs to know beside the values, such as the present day. */
  context?: object;
  target: FormTarget;
  onSaved: (id: string) => void;
}) {
  const { schema, start, context, target, onSaved } = options;
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  // A row has more columns than its form has fields; the route takes the fields and nothing else.
  const fields = Object.fromEntries(Object.keys(schema.fields).map((name) => [name, start[name]]));
  const form = useForm<T>({
    defaultValues: fields as DefaultValues<T>,
    resolver: yupResolver(schema as yup.AnyObjectSchema, context === undefined ? undefined : { context }) as never,
  });
  const submit = form.handleSubmit(async (values) => {
    setProblem(null);
    const sent = await send<{ id: string }>(target.method, target.url, values);
    if (sent.ok) {
      onSaved(sent.value.id);
      router.refresh();
      return;
    }
    for (const { path, message } of sent.fields) form.setError(path as FieldPath<T>, { message });
    setProblem(sent.message);
  });
  /** The message at a field, or undefined. */
  const error = (name: FieldPath<T>): string | undefined => {
    const found: unknown = form.formState.errors[name];
    return typeof found === "object" && found !== null && "message" in found && typeof found.message === "string"
      ? found.message
      : undefined;
  };
  return { register: form.register, watch: form.watch, setValue: form.setValue, submit, error, problem, busy: form.formState.isSubmitting };
}

/** For a field that may stay empty: an empty text is nothing rather than a wrong number or day. */
export const orNothing = { setValueAs: (value: unknown) => (value === "" || value === null || value === undefined ? null : value) };
