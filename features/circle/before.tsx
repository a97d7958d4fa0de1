"use client";

import { useState } from "react";
import { type CirclePlan, FIT_CHECKS, fitSentences } from "@/core/circle";
import type { CircleStart } from "@/core/start";
import { heatWords } from "@/core/welfare";
import { CircleStrip } from "@/ui/circle-strip";
import { CheckRow, NumberBox } from "@/ui/form/controls";
import { WayLink } from "@/ui/way";
import { HeatStop, useWeather, type Weather, WeatherProblems } from "../weather";
import type { Circle } from "./use-circle";

const GEAR = ["helmet", "gloves", "boots"] as const;

/** A set of ticked things, and how one is ticked or not. */
function useTicks() {
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const turn = (one: string) =>
    setTicked((all) => {
      const next = new Set(all);
      if (!next.delete(one)) next.add(one);
      return next;
    });
  return { ticked, turn };
}

/** What was planned, once more: the stretches, what lies on the circle, when a transition comes. */
function PlanOnce({ plan }: { plan: CirclePlan }) {
  const { by, every } = plan.transitions;
  return (
    <>
      <CircleStrip label="The plan" stretches={plan.segments.map(({ gait, side, minutes }) => ({ gait, side, seconds: minutes * 60 }))} />
      {plan.obstacles.length > 0 && (
        <p>
          On the circle: {plan.obstacles.join(", ")}.{plan.ledFirst ? " Lead the horse over first." : ""}
        </p>
      )}
      {by !== "will" && (
        <p>
          A transition every {every ?? 1} {by === "time" ? "min" : by === "lap" ? "laps" : "quarter circles"}.
        </p>
      )}
    </>
  );
}

/** How the fitted kit sat the last time, and what is looked at before it is used. */
function KitChecks({
  kit,
  stage,
  today,
  ticks,
}: {
  kit: NonNullable<CircleStart["kit"]>;
  stage: string | null;
  today: string;
  ticks: ReturnType<typeof useTicks>;
}) {
  const { fit } = kit;
  const sat =
    fit === null
      ? []
      : [
          fit.holesLeft === null ? "" : `holes ${fit.holesLeft} left, ${fit.holesRight ?? "?"} right`,
          fit.strapCentimetres === null ? "" : `strap ${fit.strapCentimetres} cm`,
          fit.slackHands === null ? "" : `slack ${fit.slackHands} hands`,
          fit.note,
        ].filter((one) => one !== "");
  return (
    <fieldset className="grid">
      <legend className="font-semibold">
        {kit.name}
        {stage === null ? "" : `, ${stage}`}
      </legend>
      {fit !== null && <p className="figures text-sm text-soft">{sat.join(", ")}</p>}
      {fitSentences(fit, today).map((sentence) => (
        <p key={sentence} className="font-semibold text-ochre">
          {sentence}
        </p>
      ))}
      {FIT_CHECKS.map((one) => (
        <CheckRow key={one} big label={one} checked={ticks.ticked.has(one)} onCheck={() => ticks.turn(one)} />
      ))}
    </fieldset>
  );
}

/** Air, humidity and shade, and what they say of heat. */
function WeatherFields({ weather }: { weather: Weather }) {
  const { heat, tooHot, imperial } = weather;
  return (
    <>
      <div className="flex flex-wrap items-end gap-3">
        <NumberBox label={`Air, ${imperial ? "°F" : "°C"}`} value={weather.air} bad={weather.airWrong} onTyped={weather.setAir} />
        <NumberBox label="Humidity, %" value={weather.humidity} bad={weather.humidityWrong} onTyped={weather.setHumidity} />
        <CheckRow
          big
          label="shade or cloud"
          checked={weather.sky === "shade"}
          onCheck={(shade) => weather.setSky(shade ? "shade" : "sun")}
        />
      </div>
      <WeatherProblems weather={weather} />
      {heat !== null && tooHot && <HeatStop heat={heat} fahrenheit={imperial} reason={weather.reason} onReason={weather.setReason} />}
      {heat !== null && !tooHot && heat.level !== "usual" && (
        <p className="border-l-4 border-ochre pl-3 font-semibold">{heatWords(heat, imperial)}</p>
      )}
    </>
  );
}

/** Before the clock runs: gear, weather, how the kit sits, the plan once more. */
export function Before({ start, circle, today }: { start: CircleStart; circle: Circle; today: string }) {
  const { plan, kit } = start;
  const gear = useTicks();
  const checked = useTicks();
  const weather = useWeather({ air: "", humidity: "", sky: "sun" }, start.yard.settings, start.today.heatLowerCelsius);
  const { airCelsius, humidityPercent, airWrong, humidityWrong, tooHot, reason } = weather;
  const checks = kit === null ? [] : FIT_CHECKS;
  const go = () =>
    circle.begin([
      {
        type: "preflight",
        payload: {
          gear: { helmet: gear.ticked.has("helmet"), gloves: gear.ticked.has("gloves"), boots: gear.ticked.has("boots") },
          checks: checks.filter((one) => checked.ticked.has(one)),
          open: checks.filter((one) => !checked.ticked.has(one)),
          ...(airCelsius === null ? {} : { air_c: airCelsius }),
          ...(humidityPercent === null ? {} : { humidity: humidityPercent }),
          sky: weather.sky ?? "sun",
          ...(tooHot && reason !== null ? { heat_reason: reason } : {}),
        },
      },
    ]);
  return (
    <div className="mx-auto grid w-full max-w-xl gap-4">
      {start.today.cautions.map((caution) => (
        <p key={caution} className="border-l-4 border-brick pl-3 font-semibold text-brick">
          {caution}
        </p>
      ))}
      {start.overrides.map(({ key, why }) => (
        <p key={key} className="border-l-4 border-ochre pl-3 text-sm">
          Gone against with a reason: {why}
        </p>
      ))}
      <PlanOnce plan={plan} />
      <fieldset className="flex flex-wrap gap-x-5">
        <legend className="font-semibold">On you</legend>
        {GEAR.map((one) => (
          <CheckRow key={one} big label={one} checked={gear.ticked.has(one)} onCheck={() => gear.turn(one)} />
        ))}
      </fieldset>
      {kit !== null && <KitChecks kit={kit} stage={plan.kitStage} today={today} ticks={checked} />}
      <WeatherFields weather={weather} />
      {tooHot && (
        <WayLink href={`/horses/${start.session.horse.id}/work`} className="act min-h-20 text-2xl">
          Not today
        </WayLink>
      )}
      <button
        type="button"
        className={tooHot ? "act-quiet min-h-14" : "act min-h-20 text-2xl"}
        disabled={airWrong || humidityWrong || (tooHot && reason === null)}
        onClick={go}
      >
        {tooHot ? "Five minutes at walk" : "Start the clock"}
      </button>
      <p className="text-sm text-soft">
        The line folded in the hand, never wrapped. Out of the kick and strike zone, also when you send the horse off.
      </p>
    </div>
  );
}
