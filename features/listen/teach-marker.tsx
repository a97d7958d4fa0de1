"use client";

import { useEffect, useRef, useState } from "react";
import { FEWEST_SAMPLES, MOST_SAMPLES, type TaughtSound, teachMark } from "@/core/hearing";
import { keepMarker, useMarker } from "./kept";
import { listen, NoMicrophone } from "./microphone";

/** Taught by six to ten samples, off until it is asked for, on this device alone. */
export function TeachMarker() {
  const marker = useMarker();
  const [teaching, setTeaching] = useState(false);
  const [sounds, setSounds] = useState<readonly TaughtSound[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const stop = useRef<(() => void) | null>(null);
  const end = () => {
    stop.current?.();
    stop.current = null;
    setTeaching(false);
  };
  useEffect(() => () => stop.current?.(), []);
  const begin = async () => {
    setProblem(null);
    setSounds([]);
    setTeaching(true);
    try {
      stop.current = await listen(null, {
        onSound: (sound) => setSounds((all) => (all.length >= MOST_SAMPLES ? all : [...all, sound])),
      });
    } catch (error) {
      setTeaching(false);
      setProblem(error instanceof NoMicrophone ? error.message : "Listening could not begin.");
    }
  };
  const taught = sounds.length >= FEWEST_SAMPLES ? teachMark(sounds) : null;
  const keep = () => {
    if (taught !== null) keepMarker({ on: taught.quality !== "poor", template: taught.template, sentence: taught.sentence });
    end();
  };
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">The marker, heard</legend>
      <p className="text-sm text-soft">
        The phone listens for your own clicker, tongue click, whistle or word and logs the mark. Nothing is recorded or sent. A false one is
        taken away by undo.
      </p>
      {marker.template !== null && !teaching && (
        <>
          <label className="mt-1 flex min-h-11 items-center gap-2">
            <input
              type="checkbox"
              checked={marker.on}
              onChange={(event) => keepMarker({ ...marker, on: event.target.checked })}
              className="size-5 accent-(--tarn)"
            />
            Listen while a block runs
          </label>
          <p className="text-sm">{marker.sentence}</p>
        </>
      )}
      {teaching ? (
        <div className="mt-2 grid gap-2 border-l-4 border-tarn pl-3">
          <p role="status" className="font-semibold">
            {sounds.length} of {FEWEST_SAMPLES} to {MOST_SAMPLES}. Make your marker, a second apart, where it is quiet.
          </p>
          {taught !== null && <p>{taught.sentence}</p>}
          <div className="flex flex-wrap gap-3">
            <button type="button" className="act" disabled={taught === null} onClick={keep}>
              Keep it
            </button>
            <button type="button" className="act-quiet" onClick={end}>
              Stop
            </button>
          </div>
        </div>
      ) : (
        <button type="button" className="act-quiet mt-2" onClick={() => void begin()}>
          {marker.template === null ? "Teach it" : "Teach it anew"}
        </button>
      )}
      {problem !== null && (
        <p role="alert" className="mt-1 font-semibold text-brick">
          {problem}
        </p>
      )}
    </fieldset>
  );
}
