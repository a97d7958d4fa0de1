"use client";

import { useState } from "react";
import type { Named } from "@/core/pack";
import { Field, named, Options, tied } from "@/ui/form";

const NEW = "new";

/** Somebody or some place chosen from the yard's, or named on the spot. */
export interface Chosen {
  /** Null where it is new. */
  readonly id: string | null;
  /** The new name; empty where one was chosen or nothing is said. */
  readonly name: string;
}

/** The first of a list, or somebody new where there is none. */
export const firstChosen = (list: readonly Named[]): Chosen => ({ id: list[0]?.id ?? null, name: "" });

/** Someone or something chosen from a list, or named on the spot. */
export function ChooseOrName({
  id,
  label,
  list,
  chosen,
  onChosen,
}: {
  id: string;
  label: string;
  list: readonly Named[];
  chosen: Chosen;
  onChosen: (chosen: Chosen) => void;
}) {
  // The name typed stays, also where one of the list is chosen in between.
  const [name, setName] = useState(chosen.name);
  return (
    <Field id={id} label={label}>
      {list.length > 0 && (
        <select
          {...tied(id, undefined)}
          value={chosen.id ?? NEW}
          className="field-box"
          onChange={({ target: { value } }) => onChosen(value === NEW ? { id: null, name: name.trim() } : { id: value, name: "" })}
        >
          <Options options={[...named(list), { value: NEW, label: "someone or somewhere new" }]} />
        </select>
      )}
      {chosen.id === null && (
        <input
          {...(list.length > 0 ? { "aria-label": `${label}, new name` } : tied(id, undefined))}
          value={name}
          maxLength={80}
          placeholder="name"
          className="field-box mt-2"
          onChange={({ target: { value } }) => {
            setName(value);
            onChosen({ id: null, name: value.trim() });
          }}
        />
      )}
    </Field>
  );
}
