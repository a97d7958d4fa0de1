"use client";

import { useState } from "react";
import { type FieldErrors, type Resolver, useForm } from "react-hook-form";
import { behaviourSchema, check, checkLadderPlan, type FieldProblem } from "@/core/schemas";
import { send } from "@/ui/form";
import type { LadderDraft } from "./draft";

/** Problems as the form library keeps them: a tree along the paths. */
function errorTree(problems: readonly FieldProblem[]): FieldErrors<LadderDraft> {
  const root: Record<string, unknown> = {};
  for (const { path, message } of problems) {
    const keys = path.replace(/\[(\d+)\]/g, ".$1").split(".");
    let at = root;
    keys.forEach((key, i) => {
      if (i === keys.length - 1) at[key] ??= { type: "validate", message };
      else {
        at[key] ??= {};
        at = at[key] as Record<string, unknown>;
      }
    });
  }
  return root as FieldErrors<LadderDraft>;
}

/** Checks a draft by the same schemas as the server. */
export function draftProblems(draft: LadderDraft): FieldProblem[] {
  const behaviour = check(behaviourSchema, draft.behaviour);
  const plan = checkLadderPlan(draft.plan);
  return [
    ...(behaviour.ok ? [] : behaviour.problems.map((p) => ({ ...p, path: `behaviour.${p.path}` }))),
    ...(plan.ok ? [] : plan.problems.map((p) => ({ ...p, path: `plan.${p.path}` }))),
  ];
}

const resolver: Resolver<LadderDraft> = async (values) => {
  const problems = draftProblems(values);
  return problems.length === 0 ? { values, errors: {} } : { values: {}, errors: errorTree(problems) };
};

/** The ladder editor's form. */
export function useDraft(start: LadderDraft, save: { horseId: string; ladderId?: string }, onSaved: (id: string) => void) {
  const form = useForm<LadderDraft>({ defaultValues: start, resolver });
  const [problems, setProblems] = useState<readonly string[]>([]);
  const submit = form.handleSubmit(
    async (values) => {
      setProblems([]);
      const sent =
        save.ladderId === undefined
          ? await send<{ id: string }>("POST", "/api/ladders", { horse: save.horseId, ...values })
          : await send<{ id: string }>("PUT", `/api/ladders/${save.ladderId}`, values);
      if (sent.ok) onSaved(sent.value.id);
      else setProblems(sent.fields.length > 0 ? sent.fields.map((f) => f.message) : [sent.message]);
    },
    () => setProblems(draftProblems(form.getValues()).map((p) => p.message)),
  );
  return { form, submit, problems };
}

export type DraftForm = ReturnType<typeof useDraft>["form"];

/** The message at a path of the form, or undefined. */
export function errorAt(form: DraftForm, path: string): string | undefined {
  let at: unknown = form.formState.errors;
  for (const key of path.split(".")) at = typeof at === "object" && at !== null ? (at as Record<string, unknown>)[key] : undefined;
  return typeof at === "object" && at !== null && "message" in at && typeof at.message === "string" ? at.message : undefined;
}
