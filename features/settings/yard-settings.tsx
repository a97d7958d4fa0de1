"use client";

import { useState } from "react";
import {
  asTyped,
  DEFAULT_SETTINGS,
  fromTyped,
  SETTING_FIELDS,
  SETTING_KEYS,
  type SettingField,
  type SettingKey,
  settingProblem,
  type YardSettings,
} from "@/core/settings";
import { recordOf } from "@/core/typed";
import { send } from "@/ui/form";

const shown = (settings: YardSettings) => recordOf(SETTING_KEYS, (key) => String(asTyped(key, settings[key])));

const fieldOf = (key: SettingKey): SettingField => SETTING_FIELDS[key];

const GROUPS = [...new Set(SETTING_KEYS.map((key) => SETTING_FIELDS[key].group))];

/** Every threshold there is, for the whole yard. */
export function YardSettingsForm({ settings }: { settings: YardSettings }) {
  const [typed, setTyped] = useState(() => shown(settings));
  const [problems, setProblems] = useState<Partial<Record<SettingKey, string>>>({});
  const [message, setMessage] = useState<string | null>(null);
  const save = async () => {
    const found: Partial<Record<SettingKey, string>> = {};
    const next: Record<SettingKey, number> = { ...settings };
    for (const key of SETTING_KEYS) {
      const value = typed[key].trim() === "" ? Number.NaN : Number(typed[key].replace(",", "."));
      const why = settingProblem(key, value);
      if (why !== null) found[key] = why;
      next[key] = fromTyped(key, value);
    }
    if (next.easeMisses > next.easeWindow) found.easeMisses = "No more than the asks looked at.";
    if (next.heatWatchCelsius > next.heatCutCelsius) found.heatWatchCelsius = "No more than the heat that cuts work.";
    if (next.heatCutCelsius > next.heatStopCelsius) found.heatCutCelsius = "No more than the heat without work.";
    setProblems(found);
    if (Object.keys(found).length > 0) return setMessage("Not saved: some numbers need a look.");
    const sent = await send("PUT", "/api/settings/word", next);
    setMessage(sent.ok ? "Saved. Open recorders take it up within seconds." : sent.message);
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
          {SETTING_KEYS.filter((key) => SETTING_FIELDS[key].group === group).map((key) => (
            <div key={key}>
              <label htmlFor={`setting-${key}`} className="grid grid-cols-[1fr_5rem] items-center gap-2 text-sm">
                <span>
                  {fieldOf(key).label} {fieldOf(key).unit !== "" && <span className="text-soft">({fieldOf(key).unit})</span>}
                </span>
                {fieldOf(key).yesNo === true ? (
                  <input
                    id={`setting-${key}`}
                    type="checkbox"
                    checked={typed[key] === "1"}
                    onChange={(event) => setTyped({ ...typed, [key]: event.target.checked ? "1" : "0" })}
                    className="size-6 justify-self-end accent-(--tarn)"
                  />
                ) : (
                  <input
                    id={`setting-${key}`}
                    inputMode="decimal"
                    value={typed[key]}
                    onChange={(event) => setTyped({ ...typed, [key]: event.target.value })}
                    aria-invalid={problems[key] !== undefined}
                    aria-describedby={problems[key] === undefined ? undefined : `${key}-wrong`}
                    className="field-box figures"
                  />
                )}
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
        <button type="button" className="act-quiet" onClick={() => setTyped(shown(DEFAULT_SETTINGS))}>
          The ones it came with
        </button>
        <p role="status">{message}</p>
      </div>
    </form>
  );
}
