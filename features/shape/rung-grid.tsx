"use client";

import { Plus, Trash2 } from "lucide-react";
import { useFieldArray } from "react-hook-form";
import { FEWEST_RUNGS, MOST_RUNGS } from "@/core/ladder";
import { STRAND_CATALOGUE, type Strand, type StrandKey } from "@/core/strands";
import { newStrand, startValue } from "./draft";
import { type DraftForm, errorAt } from "./use-draft";

function Cell({ form, strand, index }: { form: DraftForm; strand: Strand; index: number }) {
  const path = `plan.rungs.${index}.values.${strand.id}`;
  const error = errorAt(form, path);
  const label = `${strand.name}, rung ${index + 1}`;
  if (strand.kind === "levels") {
    return (
      <select
        {...form.register(path as never)}
        aria-label={label}
        aria-invalid={error !== undefined}
        title={error}
        className="field-box px-1.5! text-sm"
      >
        {strand.levels.map((level) => (
          <option key={level}>{level}</option>
        ))}
      </select>
    );
  }
  return (
    <input
      type="number"
      step="any"
      {...form.register(path as never, { valueAsNumber: true })}
      aria-label={label}
      aria-invalid={error !== undefined}
      title={error}
      className="field-box figures px-1.5!"
    />
  );
}

/** Levels as one line of text each; a level renamed keeps its place on every rung. */
function Levels({ form, strand, at }: { form: DraftForm; strand: Strand; at: number }) {
  const path = `plan.strands.${at}.levels` as const;
  const error = errorAt(form, path);
  return (
    <details className="mt-1 text-sm">
      <summary className="text-soft">levels</summary>
      <textarea
        aria-label={`Levels of ${strand.name}, easiest first, one a line`}
        aria-invalid={error !== undefined}
        defaultValue={strand.levels.join("\n")}
        rows={5}
        className="field-box mt-1"
        onBlur={(event) => {
          const next = event.target.value
            .split("\n")
            .map((line) => line.trim())
            .filter((line) => line !== "");
          const before = form.getValues(path);
          form.setValue(path, next, { shouldDirty: true });
          form.getValues("plan.rungs").forEach((rung, i) => {
            const old = before.indexOf(String(rung.values[strand.id]));
            const value = next.includes(String(rung.values[strand.id]))
              ? rung.values[strand.id]
              : (next[Math.min(old, next.length - 1)] ?? next[0] ?? "");
            form.setValue(`plan.rungs.${i}.values.${strand.id}` as never, value as never, { shouldDirty: true });
          });
        }}
      />
      {error !== undefined && <span className="font-semibold text-brick">{error}</span>}
    </details>
  );
}

/** Every value of the ladder: strands down, rungs across. */
export function RungGrid({ form }: { form: DraftForm }) {
  const strands = useFieldArray({ control: form.control, name: "plan.strands" as never });
  const rungs = useFieldArray({ control: form.control, name: "plan.rungs" as never });
  const plan = form.watch("plan");
  const used = new Set(plan.strands.map((strand) => strand.key));
  const addStrand = (key: StrandKey) => {
    const strand = newStrand(
      key,
      plan.strands.map((s) => s.id),
    );
    for (const i of plan.rungs.keys()) form.setValue(`plan.rungs.${i}.values.${strand.id}` as never, startValue(strand) as never);
    strands.append(strand as never);
  };
  return (
    <div className="max-w-full overflow-x-auto">
      <table className="border-separate border-spacing-x-2 border-spacing-y-2">
        <thead>
          <tr>
            <th scope="col" className="min-w-32 text-left font-head text-base">
              Strand
            </th>
            {plan.rungs.map((_, i) => (
              <th key={i} scope="col" className="min-w-24 text-left">
                <span className="flex items-center justify-between font-head">
                  {i + 1}
                  <button
                    type="button"
                    aria-label={`Remove rung ${i + 1}`}
                    disabled={plan.rungs.length <= FEWEST_RUNGS}
                    onClick={() => rungs.remove(i)}
                    className="grid size-8 place-items-center rounded text-soft hover:bg-paper disabled:opacity-30"
                  >
                    <Trash2 size={15} />
                  </button>
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {plan.strands.map((strand, at) => (
            <tr key={strand.id} className="align-top">
              <th scope="row" className="text-left font-normal">
                <span className="flex items-center gap-1">
                  <input
                    {...form.register(`plan.strands.${at}.name` as never)}
                    aria-label={`Name of strand ${strand.name}`}
                    className="field-box w-32! font-semibold"
                  />
                  <button
                    type="button"
                    aria-label={`Remove strand ${strand.name}`}
                    disabled={plan.strands.length === 1}
                    onClick={() => strands.remove(at)}
                    className="grid size-8 place-items-center rounded text-soft hover:bg-paper disabled:opacity-30"
                  >
                    <Trash2 size={15} />
                  </button>
                </span>
                {strand.kind === "levels" && <Levels form={form} strand={strand} at={at} />}
                {strand.kind === "number" && (
                  <span className="text-sm text-soft">
                    {strand.unit}
                    {strand.harder === "less" ? ", less is harder" : ""}
                  </span>
                )}
              </th>
              {plan.rungs.map((_, i) => (
                <td key={i}>
                  <Cell form={form} strand={strand} index={i} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <div className="flex flex-wrap gap-3 pt-2">
        <button
          type="button"
          className="act-quiet"
          disabled={plan.rungs.length >= MOST_RUNGS}
          onClick={() => rungs.append({ values: { ...form.getValues("plan.rungs").at(-1)?.values } } as never)}
        >
          <Plus size={18} aria-hidden="true" /> Rung
        </button>
        <select
          aria-label="Add a strand"
          value=""
          onChange={(event) => event.target.value !== "" && addStrand(event.target.value as StrandKey)}
          className="field-box w-56!"
        >
          <option value="">add a strand</option>
          {STRAND_CATALOGUE.filter(({ key }) => key === "own" || !used.has(key)).map(({ key, name, hint }) => (
            <option key={key} value={key} title={hint}>
              {name}
            </option>
          ))}
        </select>
      </div>
    </div>
  );
}
