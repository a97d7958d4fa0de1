"use client";

import { useEffect, useState } from "react";
import { TeachMarker } from "../../listen/teach-marker";
import { SOUND_FIELDS, setSound, useSoundSettings } from "../../sound/settings";
import { canSpeak, tell } from "../../sound/signals";
import { chooseSet, keepSet, resetSet, useChosenSet } from "./kept";
import { type Bound, KEY_ACTS, KEY_SETS, keyOf, keyProblem, ONE, rebind, shownKey } from "./sets";

const chip = (on: boolean) => `min-h-11 rounded border-2 border-ink px-2.5 text-sm font-semibold ${on ? "bg-ink text-on-ink" : "bg-paper"}`;

type KeySet = ReturnType<typeof useChosenSet>;

/** The next key that is pressed is bound to what was chosen. */
function useBinding(set: KeySet) {
  const [binding, setBinding] = useState<Bound | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    if (binding === null) return;
    const take = (event: KeyboardEvent) => {
      event.preventDefault();
      event.stopPropagation();
      if (event.key === "Escape") return setBinding(null);
      const key = keyOf(event);
      const why = keyProblem(key);
      setProblem(why);
      if (why !== null) return;
      keepSet(rebind(set, key, binding));
      setBinding(null);
    };
    window.addEventListener("keydown", take, true);
    return () => window.removeEventListener("keydown", take, true);
  }, [binding, set]);
  const bind = (act: Bound) => {
    setProblem(null);
    setBinding(binding === act ? null : act);
  };
  return { binding, problem, bind };
}

/** Which device presses, and whether it tells when a key is let go. */
function DeviceChoice({ set }: { set: KeySet }) {
  return (
    <fieldset>
      <legend className="mb-1.5 font-semibold">Device</legend>
      <div className="flex flex-wrap gap-1.5">
        {KEY_SETS.map(({ id, name }) => (
          <button key={id} type="button" aria-pressed={set.id === id} onClick={() => chooseSet(id)} className={chip(set.id === id)}>
            {name}
          </button>
        ))}
      </div>
      <p className="mt-1.5 text-sm text-soft">{set.hint}</p>
      <label className="mt-2 flex min-h-11 items-center gap-2 text-sm">
        <input
          type="checkbox"
          checked={!set.keyUp}
          onChange={(event) => keepSet({ ...set, keyUp: !event.target.checked })}
          className="size-5 accent-(--tarn)"
        />
        It tells no key-up: hold is on with one press, off with the next.
      </label>
      <button
        type="button"
        className="link min-h-11 text-sm"
        onClick={() => window.open("/remote", "deft-remote", "popup,width=260,height=520")}
      >
        Try it with the simulated remote
      </button>
    </fieldset>
  );
}

/** What something is pressed by, and another key for it. */
function KeyRow({ set, act, words, binding, onBind }: { set: KeySet; act: Bound; words: string; binding: boolean; onBind: () => void }) {
  const keys = Object.entries(set.bindings).flatMap(([key, bound]) => (bound === act ? [key] : []));
  return (
    <tr className="border-t border-hair">
      <th scope="row" className="py-1 pr-2 font-normal">
        {words}
      </th>
      <td className="py-1">
        <span className="flex flex-wrap justify-end gap-1">
          {keys.map((key) => (
            <button
              key={key}
              type="button"
              aria-label={`${shownKey(key)}, take away from ${words}`}
              className="figures min-h-9 rounded border-2 border-ink px-2 font-semibold"
              onClick={() => keepSet(rebind(set, key, null))}
            >
              {shownKey(key)}
            </button>
          ))}
          <button
            type="button"
            aria-label={`Another key for ${words}`}
            aria-pressed={binding}
            onClick={onBind}
            className={`min-h-9 rounded border-2 border-dashed border-ink px-2 ${binding ? "bg-ochre-wash" : ""}`}
          >
            {binding ? "press a key" : "+"}
          </button>
        </span>
      </td>
    </tr>
  );
}

/** What it sounds for on this device. */
function SoundChoices() {
  const sounds = useSoundSettings();
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">Sounds on this device</legend>
      {SOUND_FIELDS.map(({ key, label, hint }) => (
        <label key={key} className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            checked={sounds[key]}
            onChange={(event) => {
              setSound(key, event.target.checked);
              if (event.target.checked)
                tell(key === "reinforce" ? "reinforce" : key === "dwell" ? "dwell end" : key === "sides" ? "side" : "Up");
            }}
            className="size-5 accent-(--tarn)"
          />
          <span>
            {label} <span className="text-sm text-soft">{hint}</span>
          </span>
        </label>
      ))}
      {sounds.speak && !canSpeak() && (
        <p className="text-sm font-semibold text-ochre">This browser has no voice of its own; the sounds are used.</p>
      )}
    </fieldset>
  );
}

/** Which keys do what on this device, and what it sounds for. */
export function KeysSheet() {
  const set = useChosenSet();
  const { binding, problem, bind } = useBinding(set);
  const rows: readonly { act: Bound; words: string }[] = [
    ...KEY_ACTS,
    { act: ONE, words: "one button: press got it, twice try, long no answer; where calm is asked, then press soft, long not soft" },
  ];
  return (
    <div className="grid gap-5">
      <DeviceChoice set={set} />
      <table className="w-full text-left">
        <caption className="mb-1 text-left text-sm text-soft">1 to 5 choose the cue. Press a key's name to take it away.</caption>
        <tbody>
          {rows.map(({ act, words }) => (
            <KeyRow key={act} set={set} act={act} words={words} binding={binding === act} onBind={() => bind(act)} />
          ))}
        </tbody>
      </table>
      {problem !== null && (
        <p role="alert" className="font-semibold text-brick">
          {problem}
        </p>
      )}
      <button type="button" className="act-quiet" onClick={() => resetSet(set.id)}>
        Back to the keys it came with
      </button>
      <SoundChoices />
      <TeachMarker />
    </div>
  );
}
