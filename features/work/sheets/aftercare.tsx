"use client";

import { useState } from "react";
import { heatOf } from "@/core/advice";
import { breathingAfterWork, heartReadings, lastTemperature, piecesUsed } from "@/core/record";
import { recoveryOf } from "@/core/welfare";
import { isOutOf, numberTyped } from "@/ui/form/typed-number";
import { RecoveryCurve } from "@/ui/measure/recovery-curve";
import { useActs, useLog, useStart } from "../state";
import { BreathTaps } from "./breath-taps";
import { Vitals } from "./vitals";

const toggle = (on: boolean) =>
  `min-h-12 rounded-lg border-2 border-ink px-3 text-left font-semibold ${on ? "bg-ink text-on-ink" : "bg-paper"}`;

/** Something looked at, with what was found; nothing found where nothing is written. */
interface LookedAt {
  readonly seen: boolean;
  readonly found: string;
}
const NOT_SEEN: LookedAt = { seen: false, found: "" };
const lookedWords = ({ seen, found }: LookedAt) => (seen ? found.trim() || "looked at" : "");

function LookAt({ words, what, value, onChange }: { words: string; what: string; value: LookedAt; onChange: (value: LookedAt) => void }) {
  return (
    <>
      <button
        type="button"
        aria-pressed={value.seen}
        onClick={() => onChange({ ...value, seen: !value.seen })}
        className={toggle(value.seen)}
      >
        {value.seen ? "✓ " : ""}
        {words}
      </button>
      {value.seen && (
        <input
          aria-label={`${what}, what was found`}
          placeholder="nothing found"
          value={value.found}
          maxLength={500}
          onChange={(event) => onChange({ ...value, found: event.target.value })}
          className="field-box"
        />
      )}
    </>
  );
}

/** After the work: walked off, breathing come down, legs and kit looked at, food given. */
export function AftercarePanel({ onDone, busy }: { onDone: () => void; busy: boolean }) {
  const session = useLog();
  const start = useStart();
  const act = useActs();
  const { record } = session;
  const heat = heatOf(record, start.yard.settings, start.today.heatLowerCelsius);
  const hot = heat !== null && heat.level !== "usual";
  const recovery = recoveryOf(breathingAfterWork(record), start.today.restingBreaths, {
    hearts: heartReadings(record),
    celsius: lastTemperature(record),
    hard: hot,
    hot,
    withinShare: start.yard.settings.coolWithinShare,
  });
  const pieces = piecesUsed(record);
  const grams = start.part.plan.feeding.pieceGrams;
  const [walked, setWalked] = useState(false);
  const [legs, setLegs] = useState(NOT_SEEN);
  const [kit, setKit] = useState(NOT_SEEN);
  const [food, setFood] = useState(grams === null || pieces === 0 ? "" : String(Math.round(pieces * grams * 10) / 10));
  const foodGrams = numberTyped(food);
  const wrong = isOutOf(foodGrams, 0, 50_000);
  const saved = record.facts.findLast(({ type }) => type === "aftercare") !== undefined;
  const save = () => {
    if (wrong) return;
    act.aftercare({
      walked_off: walked,
      legs: lookedWords(legs),
      kit: lookedWords(kit),
      food_g: foodGrams,
      breathing: recovery.readings.map(({ wallMs, perMinute }) => ({
        wall_ms: Math.round(wallMs),
        per_min: Math.round(perMinute * 10) / 10,
      })),
    });
    onDone();
  };
  return (
    <div className="grid gap-4">
      <button type="button" aria-pressed={walked} onClick={() => setWalked(!walked)} className={toggle(walked)}>
        {walked ? "✓ " : ""}Walked off until loose and dry
      </button>
      <section>
        <h3 className="mb-1 font-semibold">Breathing</h3>
        <BreathTaps onRate={act.breath} />
        <RecoveryCurve recovery={recovery} restingPerMinute={start.today.restingBreaths} />
        <p
          role="status"
          data-testid="recovery"
          className={`text-sm ${recovery.callVet || recovery.aboveHeart ? "font-bold text-brick" : ""}`}
        >
          {recovery.sentence}
        </p>
        <div className="mt-2">
          <Vitals onMeasure={act.value} />
        </div>
      </section>
      <div className="grid gap-2">
        <LookAt words="Legs and feet looked at" what="Legs" value={legs} onChange={setLegs} />
        <LookAt words="Kit looked at, no rub or wear" what="Kit" value={kit} onChange={setKit} />
      </div>
      <label className="text-sm font-semibold">
        Food given, g{pieces > 0 && <span className="font-normal text-soft"> ({pieces} pieces counted)</span>}
        <input
          inputMode="decimal"
          value={food}
          onChange={(event) => setFood(event.target.value)}
          aria-invalid={wrong}
          aria-describedby={wrong ? "food-wrong" : undefined}
          className="field-box figures mt-1 font-normal"
        />
      </label>
      {wrong && (
        <p id="food-wrong" role="alert" className="font-semibold text-brick">
          Grams: a number from 0 to 50 000.
        </p>
      )}
      <button type="button" data-next className="act min-h-16 text-xl" onClick={save} disabled={busy}>
        {saved ? "Save again, to the review" : "Save, to the review"}
      </button>
      <p className="text-sm text-soft">A horse that is lame, dull, or whose breath does not come down: call a vet.</p>
    </div>
  );
}
