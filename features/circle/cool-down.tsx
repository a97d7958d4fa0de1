"use client";

import { useEffect, useState } from "react";
import { circleWorkOf, workedHard } from "@/core/circle";
import { heartReadings, lastTemperature } from "@/core/record";
import type { CircleStart } from "@/core/start";
import { recoveryOf } from "@/core/welfare";
import { RecoveryCurve } from "@/ui/measure/recovery-curve";
import { WayLink } from "@/ui/way";
import { play } from "../sound/feedback";
import { BreathTaps } from "../work/sheets/breath-taps";
import { Vitals } from "../work/sheets/vitals";
import type { Circle } from "./use-circle";

/** While the horse is not down yet it is said again after so long, in milliseconds. */
const REMIND_MS = 5 * 60_000;

/** What of the way down a press of undo would take back, in words; null where the last press was none of it. */
function lastOfIt({ undoable }: Circle["watch"]): string | null {
  const [last] = undoable();
  if (last?.type === "breath") return "the last reading";
  if (last?.type === "circle.rated") return "how the walk was";
  if (last?.type !== "cool" || last.payload.did === "starts") return null;
  return last.payload.did === "handed" ? "handing it over" : "closing it";
}

/** How the walk at the end went, asked once it is over: kit and ramp go on by a yes alone. */
function WalkAtTheEnd({ easy, onSay }: { easy: boolean | null; onSay: (easy: boolean) => void }) {
  if (easy !== null) return <p>{easy ? "The walk at the end was easy." : "The walk at the end was not easy."}</p>;
  return (
    <fieldset>
      <legend className="font-head text-xl font-bold">Was the walk at the end easy?</legend>
      <div className="mt-2 grid grid-cols-2 gap-2">
        <button type="button" className="act min-h-16 text-xl" onClick={() => onSay(true)}>
          Easy
        </button>
        <button type="button" className="act-quiet min-h-16 text-xl" onClick={() => onSay(false)}>
          Not easy
        </button>
      </div>
    </fieldset>
  );
}

/** The way down after the finish: walk until breathing is back within the horse's own limit, or say why it was left. */
export function CoolDownPanel({ start, circle, after }: { start: CircleStart; circle: Circle; after: string }) {
  const { watch } = circle;
  const cool = circleWorkOf(watch.record)?.cool ?? null;
  const [why, setWhy] = useState("");
  const [who, setWho] = useState("");
  const [late, setLate] = useState(false);
  const [dull, setDull] = useState(false);
  const resting = start.today.restingBreaths;
  const work = circleWorkOf(watch.record);
  const hot = circle.heat !== null && circle.heat.level !== "usual";
  const recovery = recoveryOf(cool?.readings ?? [], resting, {
    hearts: heartReadings(watch.record),
    celsius: lastTemperature(watch.record),
    hard: hot || (work !== null && workedHard(work)),
    hot,
    withinShare: start.yard.settings.coolWithinShare,
  });
  const last = cool?.readings.at(-1) ?? null;
  const limit = recovery.limitPerMinute;
  const down = recovery.down === true;
  const ended = cool?.ended ?? null;
  const lastMs = last?.wallMs ?? cool?.startedMs ?? 0;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new reading begins the time anew
  useEffect(() => {
    setLate(false);
    if (ended !== null) return;
    const timer = setTimeout(() => {
      setLate(true);
      play([0, 0.3].map((at) => ({ at, seconds: 0.2, hertz: 520 })));
    }, REMIND_MS);
    return () => clearTimeout(timer);
  }, [ended, lastMs]);
  const back = lastOfIt(watch);
  return (
    <section aria-label="Cool-down" className="grid gap-4">
      <h2 className="text-2xl">{ended === null ? "Cool down" : ended === "cooled" ? "Breath is down" : "Cool-down left"}</h2>
      {ended === null ? (
        <>
          <p className="text-lg">
            {hot ? "Shade, water over the whole body, moving air." : "Walk on."}{" "}
            {recovery.ownLimit
              ? `Breath is down at ${Math.floor(limit)} a minute or fewer, in two counts three minutes apart. It rests at ${Math.round(resting ?? 0)}.`
              : `This horse’s resting rate is not known. ${limit} a minute or fewer, in two counts three minutes apart, is down for any horse. If it stays above that, close it below and say how you know. Count its breathing in the stable tomorrow, under Know.`}
          </p>
          {late && (
            <p role="alert" className="border-l-4 border-ochre pl-3 font-semibold">
              Five minutes without a reading. Take the breathing again.
            </p>
          )}
          <BreathTaps onRate={(taps) => watch.press({ type: "breath", payload: { taps_ms: taps.map(Math.round) } })} />
          <Vitals onMeasure={(strand, value, unit) => watch.press({ type: "measure", payload: { strand, value, unit } })} />
          {cool?.handedTo != null && <p>Handed to {cool.handedTo}. A reading can be taken on any device that opens this session.</p>}
          <details className="border-t-2 border-hair pt-2">
            <summary className="min-h-11 cursor-pointer font-semibold">Hand it to somebody, or to a walker</summary>
            <div className="flex items-end gap-2">
              <label className="grow">
                Who or what
                <input
                  list="cool-people"
                  value={who}
                  maxLength={80}
                  className="field-box mt-1"
                  onChange={(event) => setWho(event.target.value)}
                />
                <datalist id="cool-people">
                  {start.yard.people.map(({ id, name }) => (
                    <option key={id} value={name} />
                  ))}
                  <option value="the walker" />
                </datalist>
              </label>
              <button
                type="button"
                className="act-quiet"
                disabled={who.trim() === ""}
                onClick={() => {
                  watch.press({ type: "cool", payload: { did: "handed", who: who.trim() } });
                  setWho("");
                }}
              >
                Hand over
              </button>
            </div>
          </details>
          {down && !dull ? (
            <fieldset>
              <legend className="font-semibold">Breath is down. Is the horse bright?</legend>
              <div className="mt-1 grid grid-cols-2 gap-2">
                <button
                  type="button"
                  className="act min-h-14"
                  onClick={() => watch.press({ type: "cool", payload: { did: "cooled", bright: true } })}
                >
                  Bright: close the session
                </button>
                <button type="button" className="act-quiet min-h-14" onClick={() => setDull(true)}>
                  Dull, or not sure
                </button>
              </div>
            </fieldset>
          ) : dull ? (
            <p role="alert" className="border-4 border-brick p-3 font-semibold">
              A dull horse is not down, whatever it breathes. Shade and water. Call a vet.{" "}
              <button type="button" className="link" onClick={() => setDull(false)}>
                It is bright after all
              </button>
            </p>
          ) : null}
          <div className="flex items-end gap-2">
            <label className="grow">
              Close it all the same, because
              <input value={why} maxLength={200} className="field-box mt-1" onChange={(event) => setWhy(event.target.value)} />
            </label>
            <button
              type="button"
              className="act-quiet"
              disabled={why.trim().length < 4}
              onClick={() => watch.press({ type: "cool", payload: { did: "left", reason: why.trim() } })}
            >
              Close
            </button>
          </div>
          <p className="text-sm text-soft">
            Breathing faster than the heart beats, or a rate that does not fall in the shade: stop, cool the horse with water, call a
            veterinarian.
          </p>
        </>
      ) : (
        cool?.reason !== null && cool !== null && <p>{cool.reason}</p>
      )}
      {ended !== null && work !== null && (
        <WalkAtTheEnd easy={work.easy} onSay={(easy) => watch.press({ type: "circle.rated", payload: { easy } })} />
      )}
      <p className="font-semibold">{recovery.sentence}</p>
      {recovery.readings.length > 1 && <RecoveryCurve recovery={recovery} restingPerMinute={resting} />}
      {back !== null && (
        <button type="button" className="link min-h-12 justify-self-start" onClick={watch.undo}>
          Undo {back}
        </button>
      )}
      <WayLink href={after} className={ended === null ? "act-quiet" : "act"}>
        See what it came to
      </WayLink>
    </section>
  );
}
