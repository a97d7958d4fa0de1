"use client";

import { useState } from "react";
import { foodPlan } from "@/core/ladder";
import { celsiusToFahrenheit, fahrenheitToCelsius } from "@/core/units";
import { heatCaution, heatWords, type Sky } from "@/core/welfare";
import { Day } from "@/ui/day";
import { useUnits } from "@/ui/units";
import { WayLink } from "@/ui/way";
import { useActs, useStart } from "../state";
import { type HeatReason, HeatStop } from "./heat-stop";

const GEAR = ["helmet", "gloves", "boots"] as const;
const CHECKS = ["kit fits", "sound", "fed", "calm", "stick and line accepted"] as const;
const WINDS = ["still", "breeze", "wind", "gusts"] as const;
const SKIES = [
  ["sun", "in the sun"],
  ["shade", "shade or cloud"],
] as const;
const WIND_KEY = "deft-weather";

const toggle = (well: boolean | undefined) =>
  `min-h-11 rounded-lg border-2 px-2 font-semibold leading-tight ${well === undefined ? "border-dashed border-ink bg-paper" : well ? "border-ink bg-ink text-on-ink" : "border-brick bg-paper text-brick"}`;
const numberOf = (text: string) => (text.trim() === "" ? null : Number(text.replace(",", ".")));

/** The weather typed last on this device today: it hardly changes from horse to horse. */
function lastWeather(): { air: string; humidity: string; wind: string; sky: Sky | null } {
  try {
    const kept = JSON.parse(localStorage.getItem(WIND_KEY) ?? "{}") as {
      atMs?: number;
      air?: string;
      humidity?: string;
      wind?: string;
      sky?: unknown;
    };
    if (typeof kept.atMs === "number" && Date.now() - kept.atMs < 3 * 3_600_000)
      return {
        air: kept.air ?? "",
        humidity: kept.humidity ?? "",
        wind: kept.wind ?? "",
        sky: kept.sky === "sun" || kept.sky === "shade" ? kept.sky : null,
      };
  } catch {
    // Nothing kept.
  }
  return { air: "", humidity: "", wind: "", sky: null };
}

/** Ten seconds before work: last time's line, weather, gear, horse and kit. One press where all is well. */
export function PreflightPanel() {
  const start = useStart();
  const act = useActs();
  const units = useUnits();
  const imperial = units === "imperial";
  const [weather] = useState(lastWeather);
  const [air, setAir] = useState(weather.air);
  const [humidity, setHumidity] = useState(weather.humidity);
  const [wind, setWind] = useState(weather.wind);
  const [sky, setSky] = useState(weather.sky);
  // Nothing is ticked beforehand: what nobody looked at is not said to be well.
  const [looked, setLooked] = useState<Readonly<Record<string, boolean | undefined>>>({});
  // Nothing of food where nobody planned any, and on a day without.
  const feeds = start.part.ladderId !== null && start.today.allowance.noFood === null;
  const food = feeds ? foodPlan(start.part.plan, start.part.next.rung, start.part.plan.plannedRepetitions, 1) : null;
  const [pouch, setPouch] = useState(food === null ? "" : String(food.pieces));
  const [reason, setReason] = useState<HeatReason | null>(null);
  const typedAir = numberOf(air);
  const celsius = typedAir === null ? null : imperial ? fahrenheitToCelsius(typedAir) : typedAir;
  const damp = numberOf(humidity);
  const pieces = numberOf(pouch);
  const airWrong = celsius !== null && !(celsius >= -60 && celsius <= 60);
  const dampWrong = damp !== null && !(damp >= 0 && damp <= 100);
  const piecesWrong = pieces !== null && !(Number.isInteger(pieces) && pieces >= 0 && pieces <= 1000);
  const heat =
    celsius === null || damp === null || airWrong || dampWrong
      ? null
      : heatCaution(celsius, damp, sky ?? "sun", start.yard.settings, start.today.heatLowerCelsius);
  /** Sun or shade is asked where it can matter. */
  const asksSky =
    celsius !== null &&
    damp !== null &&
    heat !== null &&
    heatCaution(celsius, damp, "sun", start.yard.settings, start.today.heatLowerCelsius).level !== "usual";
  /** Not looked at, then well, then not well. */
  const turn = (one: string) => setLooked({ ...looked, [one]: looked[one] === undefined ? true : looked[one] ? false : undefined });
  const open = [...GEAR, ...CHECKS].filter((one) => looked[one] === false);
  /** One press says that all is well; where something is not, only what was looked at is said. */
  const isWell = (one: string) => (open.length === 0 ? true : looked[one] === true);
  const tooHot = heat?.level === "stop";
  const ready = () => {
    if (airWrong || dampWrong || piecesWrong || (tooHot && reason === null)) return;
    try {
      localStorage.setItem(WIND_KEY, JSON.stringify({ atMs: Date.now(), air, humidity, wind, sky }));
    } catch {
      // It is only a convenience.
    }
    act.preflight({
      ...(celsius === null ? {} : { air_c: Math.round(celsius * 10) / 10 }),
      ...(damp === null ? {} : { humidity: damp }),
      ...(wind === "" ? {} : { wind }),
      ...(sky === null || !asksSky ? {} : { sky }),
      ...(tooHot && reason !== null ? { heat_reason: reason } : {}),
      gear: { helmet: isWell("helmet"), gloves: isWell("gloves"), boots: isWell("boots") },
      checks: CHECKS.filter(isWell),
      open,
      ...(pieces === null ? {} : { pouch: pieces }),
    });
  };
  const said = (one: string, not: string) => (looked[one] === undefined ? one : looked[one] ? `✓ ${one}` : `${not} ${one}`);
  return (
    <div className="grid gap-2.5 rounded-lg border-2 border-ink p-3" data-testid="preflight">
      {start.today.doNext !== null && (
        <p className="border-l-4 border-tarn pl-3 font-head text-xl leading-tight font-bold text-tarn">
          {start.today.doNext.text}
          <span className="block font-sans text-sm font-normal text-soft">
            for today, written <Day ms={start.today.doNext.dayMs} />
          </span>
        </p>
      )}
      <p>
        <strong className="font-head text-lg">{start.part.next.headline}</strong>
        <span className="block text-sm text-soft">
          {start.part.behaviour}
          {start.session.place !== "" && ` · ${start.session.place}`}
        </span>
      </p>
      <div className="text-sm">
        {start.today.cautions.map((one) => (
          <p key={one} className="font-semibold text-brick">
            {one}
          </p>
        ))}
        {start.today.used.map((one) => (
          <p key={one} className="figures text-soft">
            {one}
          </p>
        ))}
      </div>
      <fieldset className="grid grid-cols-[1fr_1fr_1.3fr] gap-2 text-sm">
        <legend className="sr-only">Weather</legend>
        <label>
          Air, {imperial ? "°F" : "°C"}
          <input
            inputMode="decimal"
            value={air}
            onChange={(event) => setAir(event.target.value)}
            aria-invalid={airWrong}
            className="field-box figures"
          />
        </label>
        <label>
          Humidity, %
          <input
            inputMode="decimal"
            value={humidity}
            onChange={(event) => setHumidity(event.target.value)}
            aria-invalid={dampWrong}
            className="field-box figures"
          />
        </label>
        <label>
          Wind
          <select value={wind} onChange={(event) => setWind(event.target.value)} className="field-box">
            <option value="">not said</option>
            {WINDS.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
      </fieldset>
      {airWrong && (
        <p role="alert" className="font-semibold text-brick">
          Air: from {imperial ? `${celsiusToFahrenheit(-60)} to ${celsiusToFahrenheit(60)} °F` : "−60 to 60 °C"}.
        </p>
      )}
      {dampWrong && (
        <p role="alert" className="font-semibold text-brick">
          Humidity: from 0 to 100 %.
        </p>
      )}
      {heat !== null && tooHot && <HeatStop heat={heat} fahrenheit={imperial} reason={reason} onReason={setReason} />}
      {heat !== null && !tooHot && (
        <p
          data-testid="heat"
          className={`text-sm ${heat.level === "usual" ? "text-soft" : "border-l-4 border-brick pl-3 font-semibold text-brick"}`}
        >
          {heatWords(heat, imperial)}
        </p>
      )}
      {asksSky && (
        <fieldset className="grid grid-cols-2 gap-2">
          <legend className="sr-only">Sun or shade</legend>
          {SKIES.map(([one, words]) => (
            <button
              key={one}
              type="button"
              aria-pressed={sky === one}
              onClick={() => setSky(one)}
              className={toggle(sky === null ? undefined : sky === one ? true : undefined)}
            >
              {words}
            </button>
          ))}
        </fieldset>
      )}
      <fieldset className="grid grid-cols-3 gap-2">
        <legend className="sr-only">What you wear</legend>
        {GEAR.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={looked[one] === undefined ? undefined : looked[one]}
            onClick={() => turn(one)}
            className={toggle(looked[one])}
          >
            {said(one, "no")}
          </button>
        ))}
      </fieldset>
      <fieldset className="grid grid-cols-3 gap-2">
        <legend className="sr-only">Horse and kit</legend>
        {CHECKS.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={looked[one] === undefined ? undefined : looked[one]}
            onClick={() => turn(one)}
            className={`${toggle(looked[one])} ${one.length > 12 ? "col-span-2" : ""}`}
          >
            {said(one, "not:")}
          </button>
        ))}
      </fieldset>
      {food !== null && (
        <label className="flex items-center gap-3 text-sm">
          Pieces in the pouch
          <input
            inputMode="numeric"
            value={pouch}
            onChange={(event) => setPouch(event.target.value)}
            aria-invalid={piecesWrong}
            className="field-box figures w-24"
          />
          {food.grams !== null && (
            <span className="text-soft">
              planned {food.pieces}, {Math.round(food.grams)} g
            </span>
          )}
        </label>
      )}
      {piecesWrong && (
        <p role="alert" className="font-semibold text-brick">
          Pieces: a whole number from 0 to 1000.
        </p>
      )}
      {open.includes("sound") && <p className="font-semibold text-brick">Not sound: no work. Call a veterinarian.</p>}
      {open.length > 0 && !open.includes("sound") && (
        <p className="text-sm font-semibold text-brick">Put right first: {open.join(", ")}.</p>
      )}
      {/* In sight from the first moment, on a short screen too. */}
      <div className="sticky bottom-0 -mx-3 -mb-3 grid grid-cols-[1fr_auto] gap-2 rounded-b-lg border-t-2 border-hair bg-ground p-2">
        {tooHot ? (
          <>
            <WayLink href={`/horses/${start.session.horse.id}/work`} className="act min-h-14 text-xl">
              Not today
            </WayLink>
            <button type="button" className="act-quiet min-h-14" disabled={reason === null} onClick={ready}>
              Five minutes at walk
            </button>
          </>
        ) : (
          <>
            <button type="button" className="act min-h-14 text-xl" onClick={ready}>
              {open.length === 0 ? "All well, go on" : "Noted, go on"}
            </button>
            <button type="button" className="act-quiet min-h-14" onClick={act.skipPreflight}>
              Skip
            </button>
          </>
        )}
      </div>
    </div>
  );
}
