"use client";

import { useState } from "react";
import { SIGN_KINDS, SIGNS } from "@/core/know";
import type { PinnedSign } from "@/core/ladder";
import { onAdvice } from "@/ui/form/on-word";

const KIND_WORDS = { ease: "calm", tension: "tension", danger: "danger", pain: "pain", count: "only counted" } as const;

/** Signs a ladder or a horse is watched for: chosen from the known ones, or named. */
export function SignPicker({
  chosen,
  own,
  onChange,
}: {
  chosen: readonly PinnedSign[];
  /** The yard's own signs. */
  own: readonly PinnedSign[];
  onChange: (signs: readonly PinnedSign[]) => void;
}) {
  const [kind, setKind] = useState<PinnedSign["class"]>("count");
  const [name, setName] = useState("");
  const known = [...SIGNS[kind], ...own.filter((sign) => sign.class === kind).map((sign) => sign.name)];
  const add = (text: string) => {
    const trimmed = text.trim();
    if (trimmed === "" || chosen.some((sign) => sign.name === trimmed && sign.class === kind)) return;
    onChange([...chosen, { name: trimmed, class: kind }]);
    setName("");
  };
  return (
    <div className="grid gap-2">
      {chosen.length > 0 && (
        <ul className="flex flex-wrap gap-1.5">
          {chosen.map((sign) => (
            <li key={`${sign.class} ${sign.name}`}>
              <button
                type="button"
                className="min-h-10 rounded border-2 border-ink bg-ink px-2 text-sm font-semibold text-on-ink"
                aria-label={`Take out ${sign.name}, ${KIND_WORDS[sign.class]}`}
                onClick={() => onChange(chosen.filter((one) => one !== sign))}
              >
                {sign.name} <span className="font-normal">{KIND_WORDS[sign.class]}</span> ×
              </button>
            </li>
          ))}
        </ul>
      )}
      <div className="flex flex-wrap items-end gap-2">
        <label className="text-sm font-semibold">
          Kind
          <select value={kind} onChange={onAdvice(SIGN_KINDS, setKind)} className="field-box mt-1 font-normal">
            {SIGN_KINDS.map((one) => (
              <option key={one} value={one}>
                {KIND_WORDS[one]}
              </option>
            ))}
          </select>
        </label>
        <label className="text-sm font-semibold">
          Sign
          <input
            value={name}
            maxLength={80}
            list={`signs-${kind}`}
            autoComplete="off"
            onChange={(event) => setName(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== "Enter") return;
              event.preventDefault();
              add(name);
            }}
            className="field-box mt-1 font-normal"
          />
          <datalist id={`signs-${kind}`}>
            {[...new Set(known)].map((one) => (
              <option key={one} value={one} />
            ))}
          </datalist>
        </label>
        <button type="button" className="act-quiet" disabled={name.trim() === "" || chosen.length >= 8} onClick={() => add(name)}>
          Add
        </button>
      </div>
    </div>
  );
}
