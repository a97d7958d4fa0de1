"use client";

import { useEffect, useState } from "react";
import { circleWorkOf, workedHard } from "@/core/circle";
import { heartReadings, lastTemperature } from "@/core/record";
import type { CircleStart } from "@/core/start";
import { recoveryOf } from "@/core/welfare";
import { TextBox } from "@/ui/form/controls";
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

/** Gives the cool-down to somebody else, or to a walker. */
function HandOver({
  people,
  onHand,
}: {
  people: readonly { readonly id: string; readonly name: string }[];
  onHand: (who: string) => void;
}) {
  const [who, setWho] = useState("");
  return (
    <details className="border-t-2 border-hair pt-2">
      <summary className="min-h-11 cursor-pointer font-semibold">Hand it to somebody, or to a walker</summary>
      <div className="flex items-end gap-2">
        <TextBox className="grow" label="Who or what" list="cool-people" value={who} maxLength={80} onTyped={setWho} />
        <datalist id="cool-people">
          {people.map(({ id, name }) => (
            <option key={id} value={name} />
          ))}
          <option value="the walker" />
        </datalist>
        <button
          type="button"
          className="act-quiet"
          disabled={who.trim() === ""}
          onClick={() => {
            onHand(who.trim());
            setWho("");
          }}
        >
          Hand over
        </button>
      </div>
    </details>
  );
}

/** Asked once breath is down. A dull horse is not down, and stays dull here also where it breathes faster again. */
function IsItBright({
  down,
  dull,
  setDull,
  onBright,
}: {
  down: boolean;
  dull: boolean;
  setDull: (dull: boolean) => void;
  onBright: () => void;
}) {
  if (dull)
    return (
      <p role="alert" className="border-4 border-brick p-3 font-semibold">
        A dull horse is not down, whatever it breathes. Shade and water. Call a vet.{" "}
        <button type="button" className="link" onClick={() => setDull(false)}>
          It is bright after all
        </button>
      </p>
    );
  if (!down) return null;
  return (
    <fieldset>
      <legend className="font-semibold">Breath is down. Is the horse bright?</legend>
      <div className="mt-1 grid grid-cols-2 gap-2">
        <button type="button" className="act min-h-14" onClick={onBright}>
          Bright: close the session
        </button>
        <button type="button" className="act-quiet min-h-14" onClick={() => setDull(true)}>
          Dull, or not sure
        </button>
      </div>
    </fieldset>
  );
}

/** The session closed before breath is down, with a reason. */
function CloseAllTheSame({ onClose }: { onClose: (why: string) => void }) {
  const [why, setWhy] = useState("");
  return (
    <div className="flex items-end gap-2">
      <TextBox className="grow" label="Close it all the same, because" value={why} maxLength={200} onTyped={setWhy} />
      <button type="button" className="act-quiet" disabled={why.trim().length < 4} onClick={() => onClose(why.trim())}>
        Close
      </button>
    </div>
  );
}

/** Whether no reading came for too long; said by a sound as well. */
function useLate(ended: boolean, lastMs: number): boolean {
  const [late, setLate] = useState(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new reading begins the time anew
  useEffect(() => {
    setLate(false);
    if (ended) return;
    const timer = setTimeout(() => {
      setLate(true);
      play([0, 0.3].map((at) => ({ at, seconds: 0.2, hertz: 520 })));
    }, REMIND_MS);
    return () => clearTimeout(timer);
  }, [ended, lastMs]);
  return late;
}

/** What the readings say of the way down: against the horse's own rest, harder work and heat. */
function useRecovery(start: CircleStart, { watch, heat }: Circle) {
  const work = circleWorkOf(watch.record);
  const hot = heat !== null && heat.level !== "usual";
  const recovery = recoveryOf(work?.cool?.readings ?? [], start.today.restingBreaths, {
    hearts: heartReadings(watch.record),
    celsius: lastTemperature(watch.record),
    hard: hot || (work !== null && workedHard(work)),
    hot,
    withinShare: start.yard.settings.coolWithinShare,
  });
  return { work, cool: work?.cool ?? null, hot, recovery };
}

/** What to do now, and when breath is down. */
function WhatNow({ hot, resting, recovery }: { hot: boolean; resting: number | null; recovery: ReturnType<typeof recoveryOf> }) {
  const limit = recovery.limitPerMinute;
  return (
    <p className="text-lg">
      {hot ? "Shade, water over the whole body, moving air." : "Walk on."}{" "}
      {recovery.ownLimit
        ? `Breath is down at ${Math.floor(limit)} a minute or fewer, in two counts three minutes apart. It rests at ${Math.round(resting ?? 0)}.`
        : `This horse’s resting rate is not known. ${limit} a minute or fewer, in two counts three minutes apart, is down for any horse. If it stays above that, close it below and say how you know. Count its breathing in the stable tomorrow, under Know.`}
    </p>
  );
}

/** The way down after the finish: walk until breathing is back within the horse's own limit, or say why it was left. */
export function CoolDownPanel({ start, circle, after }: { start: CircleStart; circle: Circle; after: string }) {
  const { watch } = circle;
  const { work, cool, hot, recovery } = useRecovery(start, circle);
  const ended = cool?.ended ?? null;
  const late = useLate(ended !== null, cool?.readings.at(-1)?.wallMs ?? cool?.startedMs ?? 0);
  // Kept here: closing the session and undoing it does not make a dull horse bright.
  const [dull, setDull] = useState(false);
  const resting = start.today.restingBreaths;
  const back = lastOfIt(watch);
  return (
    <section aria-label="Cool-down" className="grid gap-4">
      <h2 className="text-2xl">{ended === null ? "Cool down" : ended === "cooled" ? "Breath is down" : "Cool-down left"}</h2>
      {ended === null ? (
        <>
          <WhatNow hot={hot} resting={resting} recovery={recovery} />
          {late && (
            <p role="alert" className="border-l-4 border-ochre pl-3 font-semibold">
              Five minutes without a reading. Take the breathing again.
            </p>
          )}
          <BreathTaps onRate={(taps) => watch.press({ type: "breath", payload: { taps_ms: taps.map(Math.round) } })} />
          <Vitals onMeasure={(strand, value, unit) => watch.press({ type: "measure", payload: { strand, value, unit } })} />
          {cool?.handedTo != null && <p>Handed to {cool.handedTo}. A reading can be taken on any device that opens this session.</p>}
          <HandOver people={start.yard.people} onHand={(who) => watch.press({ type: "cool", payload: { did: "handed", who } })} />
          <IsItBright
            down={recovery.down === true}
            dull={dull}
            setDull={setDull}
            onBright={() => watch.press({ type: "cool", payload: { did: "cooled", bright: true } })}
          />
          <CloseAllTheSame onClose={(reason) => watch.press({ type: "cool", payload: { did: "left", reason } })} />
          <p className="text-sm text-soft">
            Breathing faster than the heart beats, or a rate that does not fall in the shade: stop, cool the horse with water, call a
            veterinarian.
          </p>
        </>
      ) : (
        cool !== null && cool.reason !== null && <p>{cool.reason}</p>
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
