"use client";

import { useState } from "react";
import { foodPlan } from "@/core/ladder";
import { heatWords } from "@/core/welfare";
import { Day } from "@/ui/day";
import { Problem } from "@/ui/form/controls";
import { isOutOf, numberTyped } from "@/ui/form/typed-number";
import { WayLink } from "@/ui/way";
import { HeatStop, useWeather, type Weather, WeatherProblems } from "../../weather";
import { useActs, useStart } from "../state";
import { keepWeather, lastWeather } from "./last-weather";

const GEAR = ["helmet", "gloves", "boots"] as const;
const CHECKS = ["kit fits", "sound", "fed", "calm", "stick and line accepted"] as const;
const WINDS = ["still", "breeze", "wind", "gusts"] as const;
const SKIES = [
  ["sun", "in the sun"],
  ["shade", "shade or cloud"],
] as const;

/** Not looked at, then well, then not well. */
type Looked = Readonly<Record<string, boolean | undefined>>;

const toggle = (well: boolean | undefined) =>
  `min-h-11 rounded-lg border-2 px-2 font-semibold leading-tight ${well === undefined ? "border-dashed border-ink bg-paper" : well ? "border-ink bg-ink text-on-ink" : "border-brick bg-paper text-brick"}`;

/** What was written for today, where the ladder stands, what holds and what is used. */
function BeforeWork() {
  const start = useStart();
  const { doNext, cautions, used } = start.today;
  return (
    <>
      {doNext !== null && (
        <p className="border-l-4 border-tarn pl-3 font-head text-xl leading-tight font-bold text-tarn">
          {doNext.text}
          <span className="block font-sans text-sm font-normal text-soft">
            for today, written <Day ms={doNext.dayMs} />
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
        {cautions.map((one) => (
          <p key={one} className="font-semibold text-brick">
            {one}
          </p>
        ))}
        {used.map((one) => (
          <p key={one} className="figures text-soft">
            {one}
          </p>
        ))}
      </div>
    </>
  );
}

/** The weather, what it says of heat, and sun or shade where that matters. */
function WeatherFields({ weather, wind, setWind }: { weather: Weather; wind: string; setWind: (wind: string) => void }) {
  const { heat, tooHot, imperial, sky } = weather;
  return (
    <>
      <fieldset className="grid grid-cols-[1fr_1fr_1.3fr] gap-2 text-sm">
        <legend className="sr-only">Weather</legend>
        <label>
          Air, {imperial ? "°F" : "°C"}
          <input
            inputMode="decimal"
            value={weather.air}
            onChange={(event) => weather.setAir(event.target.value)}
            aria-invalid={weather.airWrong}
            className="field-box figures"
          />
        </label>
        <label>
          Humidity, %
          <input
            inputMode="decimal"
            value={weather.humidity}
            onChange={(event) => weather.setHumidity(event.target.value)}
            aria-invalid={weather.humidityWrong}
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
      <WeatherProblems weather={weather} />
      {heat !== null && tooHot && <HeatStop heat={heat} fahrenheit={imperial} reason={weather.reason} onReason={weather.setReason} />}
      {heat !== null && !tooHot && (
        <p
          data-testid="heat"
          className={`text-sm ${heat.level === "usual" ? "text-soft" : "border-l-4 border-brick pl-3 font-semibold text-brick"}`}
        >
          {heatWords(heat, imperial)}
        </p>
      )}
      {weather.sunMatters && (
        <fieldset className="grid grid-cols-2 gap-2">
          <legend className="sr-only">Sun or shade</legend>
          {SKIES.map(([one, words]) => (
            <button
              key={one}
              type="button"
              aria-pressed={sky === one}
              onClick={() => weather.setSky(one)}
              className={toggle(sky === one ? true : undefined)}
            >
              {words}
            </button>
          ))}
        </fieldset>
      )}
    </>
  );
}

/** Things to look at: a press says well, a second one not, a third that nobody looked. */
function LookedAt({
  title,
  things,
  not,
  looked,
  turn,
}: {
  title: string;
  things: readonly string[];
  not: string;
  looked: Looked;
  turn: (one: string) => void;
}) {
  return (
    <fieldset className="grid grid-cols-3 gap-2">
      <legend className="sr-only">{title}</legend>
      {things.map((one) => (
        <button
          key={one}
          type="button"
          aria-pressed={looked[one]}
          onClick={() => turn(one)}
          className={`${toggle(looked[one])} ${one.length > 12 ? "col-span-2" : ""}`}
        >
          {looked[one] === undefined ? one : looked[one] ? `✓ ${one}` : `${not} ${one}`}
        </button>
      ))}
    </fieldset>
  );
}

/** The pouch: how many pieces, against what the plan takes. Nothing where no food is planned or allowed. */
function usePouch() {
  const start = useStart();
  const feeds = start.part.ladderId !== null && start.today.allowance.noFood === null;
  const food = feeds ? foodPlan(start.part.plan, start.part.next.rung, start.part.plan.plannedRepetitions, 1) : null;
  const [typed, setTyped] = useState(food === null ? "" : String(food.pieces));
  const pieces = numberTyped(typed);
  const wrong = isOutOf(pieces, 0, 1000) || (pieces !== null && !Number.isInteger(pieces));
  return { food, typed, setTyped, pieces, wrong };
}

function PouchField({ pouch: { food, typed, setTyped, wrong } }: { pouch: ReturnType<typeof usePouch> }) {
  if (food === null) return null;
  return (
    <>
      <label className="flex items-center gap-3 text-sm">
        Pieces in the pouch
        <input
          inputMode="numeric"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          aria-invalid={wrong}
          className="field-box figures w-24"
        />
        {food.grams !== null && (
          <span className="text-soft">
            planned {food.pieces}, {Math.round(food.grams)} g
          </span>
        )}
      </label>
      {wrong && <Problem>Pieces: a whole number from 0 to 1000.</Problem>}
    </>
  );
}

/** Ten seconds before work: last time's line, weather, gear, horse and kit. One press where all is well. */
export function PreflightPanel() {
  const start = useStart();
  const act = useActs();
  const [last] = useState(lastWeather);
  const weather = useWeather(last, start.yard.settings, start.today.heatLowerCelsius);
  const [wind, setWind] = useState(last.wind);
  // Nothing is ticked beforehand: what nobody looked at is not said to be well.
  const [looked, setLooked] = useState<Looked>({});
  const pouch = usePouch();
  const { airCelsius, humidityPercent, airWrong, humidityWrong, tooHot, reason, sky } = weather;
  const turn = (one: string) => setLooked({ ...looked, [one]: looked[one] === undefined ? true : looked[one] ? false : undefined });
  const open = [...GEAR, ...CHECKS].filter((one) => looked[one] === false);
  /** One press says that all is well; where something is not, only what was looked at is said. */
  const isWell = (one: string) => (open.length === 0 ? true : looked[one] === true);
  const ready = () => {
    if (airWrong || humidityWrong || pouch.wrong || (tooHot && reason === null)) return;
    keepWeather({ air: weather.air, humidity: weather.humidity, wind, sky });
    act.preflight({
      ...(airCelsius === null ? {} : { air_c: airCelsius }),
      ...(humidityPercent === null ? {} : { humidity: humidityPercent }),
      ...(wind === "" ? {} : { wind }),
      ...(sky === null || !weather.sunMatters ? {} : { sky }),
      ...(tooHot && reason !== null ? { heat_reason: reason } : {}),
      gear: { helmet: isWell("helmet"), gloves: isWell("gloves"), boots: isWell("boots") },
      checks: CHECKS.filter(isWell),
      open,
      ...(pouch.pieces === null ? {} : { pouch: pouch.pieces }),
    });
  };
  return (
    <div className="grid gap-2.5 rounded-lg border-2 border-ink p-3" data-testid="preflight">
      <BeforeWork />
      <WeatherFields weather={weather} wind={wind} setWind={setWind} />
      <LookedAt title="What you wear" things={GEAR} not="no" looked={looked} turn={turn} />
      <LookedAt title="Horse and kit" things={CHECKS} not="not:" looked={looked} turn={turn} />
      <PouchField pouch={pouch} />
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
