"use client";

import { Trash2 } from "lucide-react";
import { MOST_PREREQUISITES, type Prerequisite, prerequisiteWords } from "@/core/behaviour";
import { TOUCH_BEHAVIOUR, TOUCH_TOOLS, TOUCH_ZONES, touchNeed } from "@/core/know";
import { EASE_GRADES } from "@/core/strands";
import type { DraftForm } from "./use-draft";

/** A behaviour another may rest on, with the rungs it has. */
export interface RestingChoice {
  /** Its key in the library, or its own name. */
  readonly key: string;
  readonly name: string;
  /** Each rung: what it asks in words, and its values by strand name. */
  readonly rungs: readonly { readonly words: string; readonly values: Readonly<Record<string, number | string>> }[];
}

/** What a touch of the body map is said by. */
const TOUCH_FIELDS = [
  { value: "zone", label: "Where", options: TOUCH_ZONES },
  { value: "tool", label: "With", options: TOUCH_TOOLS },
  { value: "side", label: "Side", options: ["both", "left", "right"] },
  { value: "taken", label: "Taken at the least", options: EASE_GRADES },
] as const;

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
  const list = (form.watch("behaviour.prerequisites") ?? []) as readonly Prerequisite[];
  const put = (next: readonly Prerequisite[]) => form.setValue("behaviour.prerequisites", [...next] as never, { shouldDirty: true });
  const change = (at: number, values: Prerequisite["values"]) =>
    put(list.map((one, i) => (i === at ? { ...one, values: { ...one.values, ...values } } : one)));
  const free = choices.filter(({ key }) => !list.some(({ behaviour }) => behaviour === key));
  return (
    <div className="sm:col-span-2">
      <p className="mb-1 font-semibold">It rests on</p>
      <ul className="grid gap-2">
        {list.map((need, i) => {
          const choice = choices.find(({ key }) => key === need.behaviour);
          const name = names[need.behaviour] ?? need.behaviour;
          const words = prerequisiteWords(need);
          const touch = need.behaviour === TOUCH_BEHAVIOUR;
          return (
            // Several touches may stand in the list, so a place is all that tells them apart.
            <li key={`${need.behaviour} ${i}`} className="flex flex-wrap items-center gap-2">
              <span className="font-semibold">{name}</span>
              {touch &&
                TOUCH_FIELDS.map(({ value, label, options }) => (
                  <select
                    key={value}
                    aria-label={`${label}, touch ${i + 1}`}
                    value={String(need.values[value] ?? options[0])}
                    onChange={(event) => change(i, { [value]: event.target.value })}
                    className="field-box w-auto!"
                  >
                    {options.map((option) => (
                      <option key={option}>{option}</option>
                    ))}
                  </select>
                ))}
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
              {choice === undefined && !touch && <span className="text-soft">{words}</span>}
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
      {list.length < MOST_PREREQUISITES && (
        <select
          aria-label="Rests on another behaviour"
          value=""
          onChange={(event) => {
            const choice = choices.find(({ key }) => key === event.target.value);
            if (event.target.value === TOUCH_BEHAVIOUR) put([...list, touchNeed("shoulder", "hand")]);
            else if (choice !== undefined) put([...list, { behaviour: choice.key, values: { ...choice.rungs.at(-1)?.values } }]);
          }}
          className="field-box mt-2 w-72! max-w-full"
        >
          <option value="">add a behaviour</option>
          <option value={TOUCH_BEHAVIOUR}>a touch of the body map</option>
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
