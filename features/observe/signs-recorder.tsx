"use client";

import { useState } from "react";
import { REST_BEHAVIOUR, SIGN_CLASSES, SIGNS, type SignKind } from "@/core/know";
import { breathingRate, HEART_STRAND } from "@/core/welfare";
import { counted } from "@/core/words";
import { Pad } from "@/ui/pad";
import { WatchShell } from "./shell";
import { useWatch, type Watch, type WatchStart } from "./use-watch";

const TONES = { ease: "ease", tension: "tension", danger: "tension", pain: "tension", count: "plain" } as const;

/** Breathing by tapping, one tap a breath. Nothing is logged until it is kept. */
function Breathing({ watch }: { watch: Watch }) {
  const [taps, setTaps] = useState<readonly number[]>([]);
  const rate = breathingRate(taps);
  const keep = () => {
    const first = taps[0] ?? 0;
    watch.press({ type: "breath", payload: { taps_ms: taps.map((at) => Math.round(at - first)) } });
    setTaps([]);
  };
  return (
    <section aria-label="Breathing" className="grid gap-2">
      <div className="grid grid-cols-[1fr_auto] gap-2">
        <Pad label="one tap a breath" onPress={() => setTaps((all) => [...all, performance.now()])} className="min-h-[84px]! text-lg!" />
        <div className="grid w-36 content-center">
          <p className="figures font-head text-2xl font-bold" aria-live="polite">
            {rate === null ? "–" : rate.perMinute.toFixed(1)}
            <span className="ml-1 font-sans text-sm font-normal text-soft">a minute</span>
          </p>
          <p className="figures text-sm text-soft">
            {rate === null
              ? counted(taps.length, "tap")
              : `${rate.interval === null ? "" : `${rate.interval[0].toFixed(0)} to ${rate.interval[1].toFixed(0)}, `}${counted(rate.breaths, "breath")}`}
          </p>
        </div>
      </div>
      <div className="flex gap-2">
        <button type="button" className="act-quiet grow" disabled={rate === null} onClick={keep}>
          Keep this reading
        </button>
        <button type="button" className="act-quiet" disabled={taps.length === 0} onClick={() => setTaps([])}>
          Start again
        </button>
      </div>
    </section>
  );
}

function Heart({ watch }: { watch: Watch }) {
  const [typed, setTyped] = useState("");
  const value = Number(typed.replace(",", "."));
  const good = typed.trim() !== "" && value >= 15 && value <= 260;
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!good) return watch.setHint("Heart rate: from 15 to 260 beats a minute.");
        watch.press({ type: "measure", payload: { strand: HEART_STRAND, value, unit: "a minute" } });
        setTyped("");
      }}
    >
      <label className="grow font-semibold">
        Heart, beats a minute
        <input
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          inputMode="numeric"
          className="field-box figures mt-1 font-normal"
        />
      </label>
      <button type="submit" className="act-quiet">
        Keep
      </button>
    </form>
  );
}

/** What this horse shows at rest: signs by name, breathing, heart. */
export function SignsRecorder({ start }: { start: WatchStart }) {
  const watch = useWatch(start);
  // Signs of the yard's own stand with the known ones of their class; plain counts have a row where the yard has any.
  const named = (kind: SignKind) => [
    ...new Set([
      ...(kind === "count" ? [] : SIGNS[kind]),
      ...start.yard.ownSigns.filter((sign) => sign.class === kind).map(({ name }) => name),
    ]),
  ];
  const kinds: readonly SignKind[] = [...SIGN_CLASSES, ...(named("count").length > 0 ? (["count"] as const) : [])];
  const count = (name: string) => watch.record.facts.filter((fact) => fact.type === "signal" && fact.payload.name === name).length;
  return (
    <WatchShell
      start={start}
      watch={watch}
      title="at rest"
      after={`/horses/${start.session.horse.id}/know/signs`}
      intro={
        <>
          <p>
            Watch the horse where it is at ease, before any work: ten minutes on a few days make its own usual. Tap each sign as you see it,
            count the breaths at the flank, feel the pulse if you can.
          </p>
          <button
            type="button"
            className="act min-h-16 text-xl"
            onClick={() => watch.begin({ behaviour: REST_BEHAVIOUR, rung: "rest", sentence: "Watched at rest; nothing is asked." })}
          >
            Begin
          </button>
        </>
      }
    >
      <div className="grid gap-5 lg:grid-cols-[1fr_22rem]">
        <div className="grid content-start gap-4">
          {kinds.map((kind) => (
            <fieldset key={kind}>
              <legend className="mb-1.5 font-semibold">{kind === "count" ? "counted" : kind}</legend>
              <div className="grid grid-cols-3 gap-1.5">
                {named(kind).map((name) => (
                  <Pad
                    key={name}
                    label={name}
                    tone={TONES[kind]}
                    icon={<span className="figures text-sm">{count(name) || ""}</span>}
                    onPress={() => watch.press({ type: "signal", payload: { name, class: kind } })}
                    className="text-sm!"
                  />
                ))}
              </div>
            </fieldset>
          ))}
        </div>
        <div className="grid content-start gap-5">
          <Breathing watch={watch} />
          <Heart watch={watch} />
          <p className="text-sm text-soft">
            Breathing faster than the heart beats, or a rate that does not come down in the shade: stop, cool and call a veterinarian.
          </p>
        </div>
      </div>
    </WatchShell>
  );
}
