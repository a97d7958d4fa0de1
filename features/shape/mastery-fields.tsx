"use client";

import type { MasteryRule } from "@/core/mastery";
import { Field, tied } from "@/ui/form";
import { type DraftForm, errorAt } from "./use-draft";

const RULES: Record<MasteryRule["kind"], { label: string; start: MasteryRule }> = {
  share: { label: "so many of the last so many", start: { kind: "share", met: 8, of: 10, window: "moving" } },
  run: { label: "so many in a row", start: { kind: "run", length: 5 } },
  posterior: { label: "sure enough of a share", start: { kind: "posterior", target: 0.8, confidence: 0.9, least: 5 } },
  "first-clean": { label: "first clean one, then stop", start: { kind: "first-clean" } },
};

/** A number inside the rule. */
function RuleNumber({ form, name, label, step }: { form: DraftForm; name: string; label: string; step?: string }) {
  const path = `plan.mastery.${name}`;
  const error = errorAt(form, path);
  return (
    <Field id={path} label={label} error={error}>
      <input
        type="number"
        step={step ?? "1"}
        {...form.register(path as never, { valueAsNumber: true })}
        {...tied(path, error)}
        className="field-box figures"
      />
    </Field>
  );
}

/** Which rule says a rung is learned, and its numbers. */
export function MasteryFields({ form }: { form: DraftForm }) {
  const rule = form.watch("plan.mastery");
  return (
    <div className="grid gap-4 sm:grid-cols-4">
      <div className="sm:col-span-2">
        <Field id="mastery-kind" label="Moves on when">
          <select
            {...tied("mastery-kind", undefined)}
            value={rule.kind}
            onChange={(event) =>
              form.setValue("plan.mastery", RULES[event.target.value as MasteryRule["kind"]].start, { shouldDirty: true })
            }
            className="field-box"
          >
            {Object.entries(RULES).map(([kind, { label }]) => (
              <option key={kind} value={kind}>
                {label}
              </option>
            ))}
          </select>
        </Field>
      </div>
      {rule.kind === "share" && (
        <>
          <RuleNumber form={form} name="met" label="Met" />
          <RuleNumber form={form} name="of" label="Of" />
          <div className="sm:col-span-2">
            <Field id="plan.mastery.window" label="Counted">
              <select id="plan.mastery.window" {...form.register("plan.mastery.window" as never)} className="field-box">
                <option value="moving">over the latest trials</option>
                <option value="block">inside one block</option>
              </select>
            </Field>
          </div>
        </>
      )}
      {rule.kind === "run" && <RuleNumber form={form} name="length" label="In a row" />}
      {rule.kind === "posterior" && (
        <>
          <RuleNumber form={form} name="target" label="Share, 0 to 1" step="any" />
          <RuleNumber form={form} name="confidence" label="Sure by, 0 to 1" step="any" />
          <RuleNumber form={form} name="least" label="From trial" />
        </>
      )}
    </div>
  );
}
