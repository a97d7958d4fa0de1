"use client";

import { useEffect, useMemo, useRef, useState } from "react";
import { HEAT_MINUTES, heatOf, heatReasonOf } from "@/core/advice";
import { type CircleLimits, callsOf, callsUntil, circleCaps, circleNow, circleWorkOf } from "@/core/circle";
import { onBreak, openDanger, type SessionRecord } from "@/core/record";
import type { CircleStart } from "@/core/start";
import { useWatch } from "../observe/use-watch";
import { soundSettings } from "../sound/settings";
import { circleActs } from "./acts";
import { TrackPlayer } from "./track-player";

/** The longest sound and a little. */
const RING_SECONDS = 1.5;

/** Everything the screens of a session on the circle share: its log, its clock, its sounds, what is pressed. */
export function useCircle(start: CircleStart, audio: HTMLAudioElement | null) {
  const watch = useWatch(start);
  const { record, press, session, working } = watch;
  const { latest } = session;
  const [, tick] = useState(0);
  const paused = onBreak(record, "said");
  useEffect(() => {
    if (!working) return;
    const timer = setInterval(() => tick((n) => n + 1), 250);
    const awake = () => tick((n) => n + 1);
    document.addEventListener("visibilitychange", awake);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", awake);
    };
  }, [working]);

  const heat = useMemo(
    () => heatOf(record, start.yard.settings, start.today.heatLowerCelsius),
    [record, start.yard.settings, start.today.heatLowerCelsius],
  );
  const limits = useMemo(() => limitsOf(start, record, heat), [start, record, heat]);
  const { plan } = start;
  const now = circleNow(record, plan, limits, session.nowMs());
  const { stretches, capSeconds, clockSeconds: workedSeconds } = now;
  const { segments, transitions } = plan;
  const calls = useMemo(
    () => callsUntil(callsOf(segments, stretches, transitions.by === "time" ? transitions.every : null), capSeconds),
    [segments, stretches, transitions, capSeconds],
  );
  const endSeconds = stretches.at(-1)?.endSeconds ?? 0;
  const player = useRef<TrackPlayer | null>(null);
  useEffect(() => {
    if (audio === null) return;
    player.current = new TrackPlayer(audio);
    return () => player.current?.close();
  }, [audio]);
  const sounds = start.setup.sounds;
  // The last sound is let ring: the plan's end, or the cap's.
  const lastSeconds = Math.min(endSeconds, capSeconds ?? Number.POSITIVE_INFINITY) + RING_SECONDS;
  const sounding = working && !paused && heat?.level !== "stop" && workedSeconds < lastSeconds && soundSettings().sides;
  useEffect(() => {
    if (working && audio !== null) player.current?.load(calls, sounds, endSeconds);
  }, [working, audio, calls, sounds, endSeconds]);
  useEffect(() => {
    if (sounding) player.current?.run(workedSeconds);
    else player.current?.hush();
  });

  const [chosen, setChosen] = useState<string | null>(null);
  const target = chosen ?? now.target;
  const acts = circleActs({
    start,
    now: () => ({ ...circleNow(latest().record, plan, limits, session.nowMs()), chosen, record: latest().record }),
    log: (...facts) => press(...facts),
    chooseNone: () => setChosen(null),
  });
  // Counts are of taps alone: they change with the log, not with the clock.
  const tally = useMemo(() => circleWorkOf(record), [record]);
  return {
    ...now,
    ...acts,
    watch,
    tally,
    target,
    paused,
    heat,
    danger: openDanger(record),
    choose: setChosen,
  };
}

/** The limits of this session: less in heat, and what was circled earlier today counts. */
function limitsOf(start: CircleStart, record: SessionRecord, heat: ReturnType<typeof heatOf>): CircleLimits {
  return {
    caps: circleCaps({
      age: start.age,
      allowance: start.today.allowance,
      settings: start.yard.settings,
      own: start.setup.caps,
      ways: start.plan.ways,
      heat: heat?.level ?? null,
    }),
    use: start.use,
    against: new Set(start.overrides.map(({ key }) => key)),
    // With a reason from the list five minutes at walk are all that is left in the heat.
    heat: heat?.level === "stop" ? { sentence: heat.sentence, minutes: heatReasonOf(record) === null ? 0 : HEAT_MINUTES } : null,
  };
}

export type Circle = ReturnType<typeof useCircle>;
