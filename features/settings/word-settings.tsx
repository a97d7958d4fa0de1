"use client";

import { useState } from "react";
import { DEFAULT_WORD_SETTINGS, WORD_SETTING_FIELDS, type WordSettings, wordSettingProblem } from "@/core/session";
import { send } from "@/ui/form";

const shown = (settings: WordSettings) =>
  Object.fromEntries(
    WORD_SETTING_FIELDS.map(({ key, share }) => [key, String(share ? Math.round(settings[key] * 1000) / 10 : settings[key])]),
  ) as Record<keyof WordSettings, string>;

const GROUPS = [...new Set(WORD_SETTING_FIELDS.map(({ group }) => group))];

/** Every threshold of the word, for the whole yard. */
export function WordSettingsForm({ settings }: { settings: WordSettings }) {
  const [typed, setTyped] = useState(() => shown(settings));
  const [problems, setProblems] = useState<Partial<Record<keyof WordSettings, string>>>({});
  const [message, setMessage] = useState<string | null>(null);
  const save = async () => {
    const found: Partial<Record<keyof WordSettings, string>> = {};
    const next: Partial<Record<keyof WordSettings, number>> = {};
    for (const field of WORD_SETTING_FIELDS) {
      const value = typed[field.key].trim() === "" ? Number.NaN : Number(typed[field.key].replace(",", "."));
      const why = wordSettingProblem(field, value);
      if (why !== null) found[field.key] = why;
      next[field.key] = field.share ? value / 100 : value;
    }
    if ((next.easeMisses ?? 0) > (next.easeWindow ?? 0)) found.easeMisses = "No more than the asks looked at.";
    setProblems(found);
    if (Object.keys(found).length > 0) return setMessage("Not saved: some numbers need a look.");
    const sent = await send("PUT", "/api/settings/word", next);
    setMessage(sent.ok ? "Saved. It holds from the next page that is opened." : sent.message);
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      {GROUPS.map((group) => (
        <fieldset key={group} className="mt-4 grid gap-x-8 gap-y-2 sm:grid-cols-2">
          <legend className="mb-1 font-head text-lg font-bold text-tarn">{group}</legend>
          {WORD_SETTING_FIELDS.filter((field) => field.group === group).map(({ key, label, unit }) => (
            <div key={key}>
              <label className="grid grid-cols-[1fr_5rem] items-center gap-2 text-sm">
                <span>
                  {label} <span className="text-soft">({unit})</span>
                </span>
                <input
                  inputMode="decimal"
                  value={typed[key]}
                  onChange={(event) => setTyped({ ...typed, [key]: event.target.value })}
                  aria-invalid={problems[key] !== undefined}
                  aria-describedby={problems[key] === undefined ? undefined : `${key}-wrong`}
                  className="field-box figures"
                />
              </label>
              {problems[key] !== undefined && (
                <p id={`${key}-wrong`} role="alert" className="text-sm font-semibold text-brick">
                  {problems[key]}
                </p>
              )}
            </div>
          ))}
        </fieldset>
      ))}
      <div className="mt-4 flex flex-wrap items-center gap-4">
        <button type="submit" className="act">
          Save the thresholds
        </button>
        <button type="button" className="act-quiet" onClick={() => setTyped(shown(DEFAULT_WORD_SETTINGS))}>
          The ones it came with
        </button>
        <p role="status">{message}</p>
      </div>
    </form>
  );
}
