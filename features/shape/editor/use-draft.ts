"use client";

import { useRef, useState } from "react";
import { type FieldErrors, type Resolver, useForm } from "react-hook-form";
import { behaviourSchema, check, checkLadderPlan, type FieldProblem } from "@/core/schemas";
import { send } from "@/ui/form";
import type { LadderDraft, LadderSettings } from "./draft";
import type { RopeStep } from "./use-rope";

/** A ladder that was saved elsewhere while it was edited here: both are whole, and one is to be chosen. */
export interface LadderConflict {
  readonly present: LadderDraft & { readonly revision: number };
  readonly mine: LadderDraft;
}

/** Problems as the form library keeps them: a tree along the paths. */
function errorTree(problems: readonly FieldProblem[]): FieldErrors<LadderSettings> {
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
  return root as FieldErrors<LadderSettings>;
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

const withRope = ({ behaviour, plan }: LadderSettings, { rope, ways }: RopeStep): LadderDraft => ({
  behaviour,
  plan: { ...plan, ...rope, ways },
});

/** The form beside the rope; both are checked and sent as one. */
export function useDraft(
  start: LadderDraft,
  step: RopeStep,
  save: { horseId: string; edited?: { ladderId: string; revision: number } },
  onSaved: (id: string) => void,
) {
  const [problems, setProblems] = useState<readonly string[]>([]);
  const [conflict, setConflict] = useState<LadderConflict | null>(null);
  const now = useRef(step);
  now.current = step;
  const [resolver] = useState(
    (): Resolver<LadderSettings> => async (values) => {
      const found = draftProblems(withRope(values, now.current));
      return found.length === 0 ? { values, errors: {} } : { values: {}, errors: errorTree(found) };
    },
  );
  const { strands: _, rungs: __, ways: ___, ...settings } = start.plan;
  const form = useForm<LadderSettings>({ defaultValues: { behaviour: start.behaviour, plan: settings }, resolver });
  const submit = form.handleSubmit(
    async (values) => {
      setProblems([]);
      const draft = withRope(values, now.current);
      const { horseId, edited } = save;
      // Saved once more after a conflict, it goes over what was shown then and over nothing newer.
      const revision = conflict?.present.revision ?? edited?.revision;
      const sent =
        edited === undefined
          ? await send<{ id: string }>("POST", "/api/ladders", { horse: horseId, ...draft })
          : await send<{ id: string }>("PUT", `/api/ladders/${edited.ladderId}`, { ...draft, revision });
      if (sent.ok) onSaved(sent.value.id);
      else if (sent.code === "ladder-conflict") {
        const { present } = sent.answer as { present: LadderConflict["present"] };
        setConflict({ present, mine: draft });
      } else setProblems(sent.fields.length > 0 ? sent.fields.map((f) => f.message) : [sent.message]);
    },
    () => setProblems(draftProblems(withRope(form.getValues(), now.current)).map((p) => p.message)),
  );
  return { form, submit, problems, conflict };
}

export type DraftForm = ReturnType<typeof useDraft>["form"];

/** The message at a path of the form, or undefined. */
export function errorAt(form: DraftForm, path: string): string | undefined {
  let at: unknown = form.formState.errors;
  for (const key of path.split(".")) at = typeof at === "object" && at !== null ? (at as Record<string, unknown>)[key] : undefined;
  return typeof at === "object" && at !== null && "message" in at && typeof at.message === "string" ? at.message : undefined;
}
