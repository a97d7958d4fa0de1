"use client";

import type { LinesSetup } from "@/core/circle";

const STEPS = [
  "two lines on a circle",
  "two lines, walking behind",
  "two lines, straight out",
  "dragging something light",
  "between poles, nothing hitched",
  "hitched, with a helper at the head",
] as const;

/** What is on and who is where in long lines. */
export function LinesFields({ lines, change }: { lines: LinesSetup; change: (change: Partial<LinesSetup>) => void }) {
  const { companion } = lines;
  return (
    <fieldset className="grid gap-3">
      <legend className="mb-2 text-lg font-semibold">Long lines</legend>
      <label>
        <span className="font-semibold">Step</span>
        <input
          list="lines-steps"
          value={lines.step}
          maxLength={80}
          className="field-box mt-1"
          onChange={(event) => change({ step: event.target.value })}
        />
        <datalist id="lines-steps">
          {STEPS.map((step) => (
            <option key={step} value={step} />
          ))}
        </datalist>
      </label>
      <div className="grid gap-3 sm:grid-cols-2">
        <label>
          <span className="font-semibold">Who leads at the head</span>
          <input
            value={lines.head}
            maxLength={80}
            placeholder="nobody"
            className="field-box mt-1"
            onChange={(event) => change({ head: event.target.value })}
          />
        </label>
        <label>
          <span className="font-semibold">Traffic is on the</span>
          <select
            value={lines.traffic}
            className="field-box mt-1"
            onChange={(event) => change({ traffic: event.target.value as LinesSetup["traffic"] })}
          >
            <option value="none">nowhere near</option>
            <option value="L">left</option>
            <option value="R">right</option>
          </select>
        </label>
        <label>
          <span className="font-semibold">Blinkers</span>
          <select
            value={lines.blinkers}
            className="field-box mt-1"
            onChange={(event) => change({ blinkers: event.target.value as LinesSetup["blinkers"] })}
          >
            <option value="none">none</option>
            <option value="on">on</option>
            <option value="off">off, carried along</option>
          </select>
        </label>
        <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
          {(["traces", "breeching"] as const).map((key) => (
            <label key={key} className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                checked={lines[key]}
                className="size-5 accent-(--tarn)"
                onChange={(event) => change({ [key]: event.target.checked })}
              />
              {key}
            </label>
          ))}
        </div>
      </div>
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          checked={lines.release_checked}
          className="size-5 accent-(--tarn)"
          onChange={(event) => change({ release_checked: event.target.checked })}
        />
        the quick release was tried
      </label>
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          checked={companion !== null}
          className="size-5 accent-(--tarn)"
          onChange={(event) =>
            change({
              companion: event.target.checked ? { name: "a steady horse", side: "L", rope_slack: true, head_at: "its shoulder" } : null,
            })
          }
        />
        a steady companion alongside
      </label>
      {companion !== null && (
        <div className="grid gap-3 border-l-4 border-hair pl-4 sm:grid-cols-2">
          <label>
            <span className="font-semibold">Who</span>
            <input
              value={companion.name}
              maxLength={80}
              className="field-box mt-1"
              onChange={(event) => change({ companion: { ...companion, name: event.target.value } })}
            />
          </label>
          <label>
            <span className="font-semibold">On the</span>
            <select
              value={companion.side}
              className="field-box mt-1"
              onChange={(event) => change({ companion: { ...companion, side: event.target.value as "L" | "R" } })}
            >
              <option value="L">left</option>
              <option value="R">right</option>
            </select>
          </label>
          <label>
            <span className="font-semibold">This horse’s head stands at</span>
            <input
              value={companion.head_at}
              maxLength={80}
              className="field-box mt-1"
              onChange={(event) => change({ companion: { ...companion, head_at: event.target.value } })}
            />
          </label>
          <label className="flex min-h-11 items-center gap-2 self-end">
            <input
              type="checkbox"
              checked={companion.rope_slack}
              className="size-5 accent-(--tarn)"
              onChange={(event) => change({ companion: { ...companion, rope_slack: event.target.checked } })}
            />
            its rope hangs slack
          </label>
        </div>
      )}
    </fieldset>
  );
}
