"use client";

import { useState } from "react";
import { FIT_CHECKS, fitSentences } from "@/core/circle";
import type { Fact } from "@/core/schemas";
import type { CircleStart } from "@/core/start";
import { celsiusToFahrenheit, fahrenheitToCelsius } from "@/core/units";
import { heatCaution, heatWords } from "@/core/welfare";
import { CircleStrip } from "@/ui/circle-strip";
import { useUnits } from "@/ui/units";
import { WayLink } from "@/ui/way";
import { type HeatReason, HeatStop } from "../work/sheets/heat-stop";
import type { Circle } from "./use-circle";
import { typedNumber } from "./words";

const GEAR = ["helmet", "gloves", "boots"] as const;

/** Before the clock runs: gear, weather, how the kit sits, the plan once more. */
export function Before({ start, circle, today }: { start: CircleStart; circle: Circle; today: string }) {
  const { plan, kit } = start;
  const [gear, setGear] = useState<ReadonlySet<string>>(new Set());
  const [checked, setChecked] = useState<ReadonlySet<string>>(new Set());
  const [air, setAir] = useState("");
  const [humidity, setHumidity] = useState("");
  const [shade, setShade] = useState(false);
  const [reason, setReason] = useState<HeatReason | null>(null);
  const toggle = (set: ReadonlySet<string>, one: string) => {
    const next = new Set(set);
    if (!next.delete(one)) next.add(one);
    return next;
  };
  const imperial = useUnits() === "imperial";
  const typedAir = typedNumber(air);
  const airC = typedAir === null ? null : Math.round((imperial ? fahrenheitToCelsius(typedAir) : typedAir) * 10) / 10;
  const damp = typedNumber(humidity);
  const badAir = air.trim() !== "" && (airC === null || airC < -60 || airC > 60);
  const badDamp = humidity.trim() !== "" && (damp === null || damp < 0 || damp > 100);
  const checks = kit === null ? [] : FIT_CHECKS;
  const heat =
    airC === null || damp === null || badAir || badDamp
      ? null
      : heatCaution(airC, damp, shade ? "shade" : "sun", start.yard.settings, start.today.heatLowerCelsius);
  const tooHot = heat?.level === "stop";
  const go = () => {
    const facts: Fact[] = [
      {
        type: "preflight",
        payload: {
          gear: { helmet: gear.has("helmet"), gloves: gear.has("gloves"), boots: gear.has("boots") },
          checks: checks.filter((one) => checked.has(one)),
          open: checks.filter((one) => !checked.has(one)),
          ...(airC === null || badAir ? {} : { air_c: airC }),
          ...(damp === null || badDamp ? {} : { humidity: damp }),
          sky: shade ? "shade" : "sun",
          ...(tooHot && reason !== null ? { heat_reason: reason } : {}),
        },
      },
    ];
    circle.begin(facts);
  };
  const box = "flex min-h-12 items-center gap-2";
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
      <CircleStrip label="The plan" stretches={plan.segments.map(({ gait, side, minutes }) => ({ gait, side, seconds: minutes * 60 }))} />
      {plan.obstacles.length > 0 && (
        <p>
          On the circle: {plan.obstacles.join(", ")}.{plan.led_first ? " Lead the horse over first." : ""}
        </p>
      )}
      {plan.transitions.by !== "will" && (
        <p>
          A transition every {plan.transitions.every ?? 1}{" "}
          {plan.transitions.by === "time" ? "min" : plan.transitions.by === "lap" ? "laps" : "quarter circles"}.
        </p>
      )}
      <fieldset className="flex flex-wrap gap-x-5">
        <legend className="font-semibold">On you</legend>
        {GEAR.map((one) => (
          <label key={one} className={box}>
            <input
              type="checkbox"
              checked={gear.has(one)}
              className="size-6 accent-(--tarn)"
              onChange={() => setGear((all) => toggle(all, one))}
            />
            {one}
          </label>
        ))}
      </fieldset>
      {kit !== null && (
        <fieldset className="grid">
          <legend className="font-semibold">
            {kit.name}
            {plan.kit_stage === null ? "" : `, ${plan.kit_stage}`}
          </legend>
          {kit.fit !== null && (
            <p className="figures text-sm text-soft">
              {[
                kit.fit.holes_left === null ? null : `holes ${kit.fit.holes_left} left, ${kit.fit.holes_right ?? "?"} right`,
                kit.fit.strap_cm === null ? null : `strap ${kit.fit.strap_cm} cm`,
                kit.fit.slack_hands === null ? null : `slack ${kit.fit.slack_hands} hands`,
                kit.fit.note === "" ? null : kit.fit.note,
              ]
                .filter((one) => one !== null)
                .join(", ")}
            </p>
          )}
          {fitSentences(kit.fit, today).map((sentence) => (
            <p key={sentence} className="font-semibold text-ochre">
              {sentence}
            </p>
          ))}
          {FIT_CHECKS.map((one) => (
            <label key={one} className={box}>
              <input
                type="checkbox"
                checked={checked.has(one)}
                className="size-6 accent-(--tarn)"
                onChange={() => setChecked((all) => toggle(all, one))}
              />
              {one}
            </label>
          ))}
        </fieldset>
      )}
      <div className="flex flex-wrap items-end gap-3">
        <label className="grid content-start">
          <span className="font-semibold">Air, {imperial ? "°F" : "°C"}</span>
          <input
            value={air}
            inputMode="decimal"
            aria-invalid={badAir}
            className="field-box figures mt-1 w-24"
            onChange={(event) => setAir(event.target.value)}
          />
        </label>
        <label className="grid content-start">
          <span className="font-semibold">Humidity, %</span>
          <input
            value={humidity}
            inputMode="decimal"
            aria-invalid={badDamp}
            className="field-box figures mt-1 w-24"
            onChange={(event) => setHumidity(event.target.value)}
          />
        </label>
        <label className={box}>
          <input type="checkbox" checked={shade} className="size-6 accent-(--tarn)" onChange={(event) => setShade(event.target.checked)} />
          shade or cloud
        </label>
      </div>
      {(badAir || badDamp) && (
        <p className="text-sm font-semibold text-brick">
          {badAir
            ? imperial
              ? `Air: from ${celsiusToFahrenheit(-60)} to ${celsiusToFahrenheit(60)} °F.`
              : "Air: from −60 to 60 °C."
            : "Humidity: from 0 to 100 %."}
        </p>
      )}
      {heat !== null && tooHot && <HeatStop heat={heat} fahrenheit={imperial} reason={reason} onReason={setReason} />}
      {heat !== null && !tooHot && heat.level !== "usual" && (
        <p className="border-l-4 border-ochre pl-3 font-semibold">{heatWords(heat, imperial)}</p>
      )}
      {tooHot && (
        <WayLink href={`/horses/${start.session.horse.id}/work`} className="act min-h-20 text-2xl">
          Not today
        </WayLink>
      )}
      <button
        type="button"
        className={tooHot ? "act-quiet min-h-14" : "act min-h-20 text-2xl"}
        disabled={badAir || badDamp || (tooHot && reason === null)}
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
