"use client";

import { Trash2 } from "lucide-react";
import { prerequisiteWords } from "@/core/behaviour";
import type { DraftForm } from "./use-draft";

/** A behaviour another may rest on, with the rungs it has. */
export interface RestingChoice {
  /** Its key in the library, or its own name. */
  readonly key: string;
  readonly name: string;
  /** Each rung: what it asks in words, and its values by strand name. */
  readonly rungs: readonly { readonly words: string; readonly values: Readonly<Record<string, number | string>> }[];
}

/** Behaviours this one rests on, each with what it must have reached. */
export function RestsOnFields({
  form,
  choices,
  names,
}: {
  form: DraftForm;
  choices: readonly RestingChoice[];
  /** Names of behaviours by key. */
  names: Readonly<Record<string, string>>;
}) {
  const list = form.watch("behaviour.prerequisites") ?? [];
  const put = (next: typeof list) => form.setValue("behaviour.prerequisites", next, { shouldDirty: true });
  const free = choices.filter(({ key }) => !list.some(({ behaviour }) => behaviour === key));
  return (
    <div className="sm:col-span-2">
      <p className="mb-1 font-semibold">It rests on</p>
      <ul className="grid gap-2">
        {list.map((need, i) => {
          const choice = choices.find(({ key }) => key === need.behaviour);
          const name = names[need.behaviour] ?? need.behaviour;
          const words = prerequisiteWords({ ...need, values: need.values as Record<string, number | string> });
          return (
            <li key={need.behaviour} className="flex flex-wrap items-center gap-2">
              <span className="font-semibold">{name}</span>
              {choice !== undefined && choice.rungs.length > 0 && (
                <select
                  aria-label={`How far, ${name}`}
                  value={choice.rungs.findIndex(({ values }) => JSON.stringify(values) === JSON.stringify(need.values))}
                  onChange={(event) => {
                    const rung = choice.rungs[Number(event.target.value)];
                    put(list.map((one, at) => (at === i ? { ...one, values: rung?.values ?? one.values } : one)));
                  }}
                  className="field-box w-auto! max-w-full"
                >
                  <option value={-1}>{words === "" ? "any of it" : words}</option>
                  {choice.rungs.map((rung, n) => (
                    <option key={rung.words} value={n}>
                      rung {n + 1}: {rung.words}
                    </option>
                  ))}
                </select>
              )}
              {choice === undefined && <span className="text-soft">{words}</span>}
              <button
                type="button"
                aria-label={`No longer rests on ${name}`}
                onClick={() => put(list.filter((_, at) => at !== i))}
                className="grid size-9 place-items-center rounded text-soft hover:bg-paper"
              >
                <Trash2 size={16} aria-hidden="true" />
              </button>
            </li>
          );
        })}
      </ul>
      {free.length > 0 && (
        <select
          aria-label="Rests on another behaviour"
          value=""
          onChange={(event) => {
            const choice = choices.find(({ key }) => key === event.target.value);
            if (choice !== undefined)
              put([...list, { behaviour: choice.key, values: { ...choice.rungs.at(-1)?.values } } as (typeof list)[number]]);
          }}
          className="field-box mt-2 w-72! max-w-full"
        >
          <option value="">add a behaviour</option>
          {free.map(({ key, name }) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
      )}
      <p className="mt-1 text-sm text-soft">Skipped ones are a warning, never a wall.</p>
    </div>
  );
}
