"use client";

import { memo } from "react";
import { useFormState } from "react-hook-form";
import type { Strand } from "@/core/strands";
import { Field, tied } from "@/ui/form";
import { type DraftForm, errorAt } from "./use-draft";

/** The strand of numbers whose value is measured in each trial. */
export const CountedStrand = memo(function CountedStrand({ form, strands }: { form: DraftForm; strands: readonly Strand[] }) {
  useFormState({ control: form.control });
  const path = "plan.workingStrandId" as const;
  const error = errorAt(form, path);
  return (
    <div className="max-w-xs">
      <Field id={path} label="Counted strand" hint="Its value is measured in each trial." error={error}>
        <select
          {...form.register(path, { setValueAs: (value: string | null) => (value === "" || value === null ? null : value) })}
          {...tied(path, error)}
          className="field-box"
        >
          <option value="">none</option>
          {strands
            .filter((strand) => strand.kind === "number" && strand.key !== "latency" && strand.key !== "lightness")
            .map((strand) => (
              <option key={strand.id} value={strand.id}>
                {strand.name}
              </option>
            ))}
        </select>
      </Field>
    </div>
  );
});
