"use client";

import { useEffect, useMemo, useRef, useState } from "react";
import {
  type Aid,
  CIRCLE_BEHAVIOUR,
  callsOf,
  callsUntil,
  circleCaps,
  circleWorkOf,
  clockAt,
  movingBy,
  PLAN_RUNG,
  type Stretch,
  scheduleOf,
  secondsInMotion,
} from "@/core/circle";
import type { CircleStart } from "@/core/pack";
import { openDanger } from "@/core/record";
import type { Fact } from "@/core/schemas";
import { heatCaution } from "@/core/welfare";
import { HEAT_MINUTES, heatReasonOf } from "@/core/word";
import { useWatch } from "../observe/use-watch";
import { soundSettings } from "../sound/settings";
import { TrackPlayer } from "./track-player";

/** How much longer than planned a horse must have stood for the track to be made anew. */
const STOOD_STEP_SECONDS = 5;
/** The longest sound and a little. */
const RING_SECONDS = 1.5;

/** Everything the screens of a session on the circle share: its log, its clock, its sounds, what is pressed. */
export function useCircle(start: CircleStart, audio: HTMLAudioElement | null) {
  const watch = useWatch(start);
  const { record, press, session, working } = watch;
  const { latest } = session;
  const [, tick] = useState(0);
  const paused = record.timeLine.breaks.at(-1)?.endMs === null && record.timeLine.breaks.at(-1)?.silent === undefined;
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

  const nowMs = session.nowMs();
  const { segments, transitions } = start.plan;
  const work = circleWorkOf(record, nowMs);
  const workedSeconds = work?.clockSeconds ?? 0;
  // Made anew with each look; by its text it stays the same for what hangs on it.
  const schedule = JSON.stringify(work?.stretches ?? scheduleOf(segments, []));
  const stretches = useMemo(() => JSON.parse(schedule) as Stretch[], [schedule]);
  const face = clockAt(stretches, workedSeconds);

  // What may still be circled: less in heat, and what was circled earlier today counts.
  const heat = useMemo(() => {
    const fact = record.facts.findLast((one) => one.type === "preflight" && one.payload.air_c != null && one.payload.humidity != null);
    if (fact?.type !== "preflight") return null;
    const sky = fact.payload.sky === "shade" ? "shade" : "sun";
    return heatCaution(fact.payload.air_c ?? 0, fact.payload.humidity ?? 0, sky, start.settings, start.heatLowerCelsius);
  }, [record, start.settings, start.heatLowerCelsius]);
  // With a reason from the list five minutes at walk are all that is left in the heat.
  const heatMinutes = heatReasonOf(record) === null ? 0 : HEAT_MINUTES;
  const caps = circleCaps({
    age: start.age,
    allowance: start.allowance,
    settings: start.settings,
    own: start.setup.caps,
    ways: start.plan.ways,
    heat: heat?.level ?? null,
  });
  const round = start.plan.form !== "lines" || start.plan.radius_m !== null;
  const cap = start.plan.form === "pen" ? caps.penMinutes : caps.sessionMinutes;
  const circledMinutes = start.use.todayMinutes + (work?.movingSeconds ?? 0) / 60;
  const weekMinutes = start.use.weekMinutes + (work?.movingSeconds ?? 0) / 60;
  const against = new Set(start.overrides.map(({ key }) => key));
  // What was gone against with a word of why stops nothing, except in a pen: there the cap holds whatever was said.
  const dayHolds = round && (start.plan.form === "pen" || !against.has("too-long"));
  const weekHolds = round && caps.weekMinutes !== null && !against.has("week");
  const overCap =
    dayHolds && circledMinutes >= cap.value
      ? `${Math.floor(circledMinutes)} min of circling today, the most. ${cap.why}`
      : weekHolds && caps.weekMinutes !== null && weekMinutes >= caps.weekMinutes.value
        ? `${Math.floor(weekMinutes)} min of circling in seven days, the most. ${caps.weekMinutes.why}`
        : heat?.level === "stop" && (work?.clockSeconds ?? 0) / 60 >= heatMinutes
          ? heat.sentence
          : null;
  const leftMinutes = Math.min(
    dayHolds ? cap.value - start.use.todayMinutes : Number.POSITIVE_INFINITY,
    weekHolds && caps.weekMinutes !== null ? caps.weekMinutes.value - start.use.weekMinutes : Number.POSITIVE_INFINITY,
  );

  // Where the cap is reached the plan calls its end and nothing after it. A horse that stood where the plan has it move
  // comes to the cap later; in steps, since each makes the track anew.
  const stoodSeconds = movingBy(segments, stretches, workedSeconds) - (work?.movingSeconds ?? 0);
  const lateSeconds = Math.round(stoodSeconds / STOOD_STEP_SECONDS) * STOOD_STEP_SECONDS;
  const capSeconds = Number.isFinite(leftMinutes) ? secondsInMotion(segments, stretches, leftMinutes * 60 + lateSeconds) : null;
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

  const segment = segments[face.stretch?.segment ?? -1] ?? null;
  const next = segments[face.next?.segment ?? -1] ?? null;
  const side = segment?.side ?? segments.at(-1)?.side ?? "L";
  const gait = work?.gaits.at(-1)?.gait ?? "stand";
  const open = work?.transitions.findLast(({ cameAfterSeconds }) => cameAfterSeconds === null) ?? null;
  const lastCame = record.facts.findLast((fact) => fact.type === "gait");
  const asking = open !== null && (lastCame === undefined || startOfAsk(record) > lastCame.ms) ? open : null;
  const [chosen, setChosen] = useState<string | null>(null);
  const target = chosen ?? asking?.to ?? (segment !== null && face.called && next !== null ? next.gait : (segment?.gait ?? gait));

  const begin = (checks: Fact[]) => {
    const facts: Fact[] = [...checks];
    if (record.header === null)
      facts.push({
        type: "session.start",
        payload: { horse: start.horse.name, handler: start.handler, place: start.place, method: "pressure-release" },
      });
    const { ladder } = start;
    const criterion = ladder?.payload;
    facts.push({
      type: "block.start",
      payload:
        ladder === null || criterion === undefined
          ? {
              block: 1,
              behaviour: CIRCLE_BEHAVIOUR[start.plan.form],
              rung: PLAN_RUNG,
              criterion: { sentence: "Work by its plan and clock." },
              side: "",
              kind: "work",
            }
          : {
              block: 1,
              behaviour: ladder.name,
              ladder: ladder.id,
              version: ladder.version,
              rung: ladder.rung,
              criterion: criterion as never,
              side: "",
              kind: "work",
            },
    });
    facts.push({ type: "circle.start", payload: { plan: start.plan as never, overrides: [...start.overrides] } });
    press(...facts);
  };
  /** How long the ask that goes on has lasted, in seconds, or null. */
  const askedFor = () => {
    const now = circleWorkOf(latest().record, session.nowMs());
    const running = now?.transitions.at(-1);
    return running === undefined || running.cameAfterSeconds !== null
      ? null
      : { seconds: running.waitedSeconds, aids: running.aids, to: running.to };
  };
  /** The clearest phase of the ladder's ask that was used. */
  const phaseOf = (aids: readonly Aid[]) => Math.max(...aids.map((aid) => start.ladder?.phases[aid] ?? 1));
  const counts = (to: string) => start.ladder !== null && (start.ladder.gait === null || start.ladder.gait === to);
  const came = () => {
    const facts: Fact[] = [];
    const ask = asking === null ? null : askedFor();
    if (ask !== null && ask.to === target && counts(target)) {
      const phase = phaseOf(ask.aids);
      facts.push({
        type: "trial",
        payload: { outcome: "met", side, phase, latency_s: Math.round(ask.seconds * 10) / 10, logged: "timed" },
      });
    }
    facts.push({
      type: "gait",
      payload: {
        gait: target,
        direction: side === "L" ? "left" : "right",
        ...(start.plan.radius_m === null ? {} : { radius_m: start.plan.radius_m }),
      },
    });
    setChosen(null);
    press(...facts);
  };
  const noAnswer = () => {
    const ask = asking === null ? null : askedFor();
    if (ask === null) return;
    const facts: Fact[] = [];
    if (counts(ask.to)) {
      const phase = phaseOf(ask.aids);
      facts.push({
        type: "trial",
        payload: { outcome: "refused", side, phase, waited_s: Math.round(ask.seconds * 10) / 10, logged: "timed" },
      });
    }
    facts.push({ type: "gait", payload: { gait: asking?.from ?? gait, direction: side === "L" ? "left" : "right" } });
    setChosen(null);
    press(...facts);
  };
  return {
    watch,
    work,
    face,
    stretches,
    segment,
    next,
    side,
    gait,
    target,
    asking,
    paused,
    workedSeconds,
    overCap,
    heat,
    cap,
    circledMinutes,
    round,
    danger: openDanger(record),
    choose: setChosen,
    begin,
    aid: (aid: Aid) => press({ type: "aid", payload: { aid, to: target } }),
    came,
    noAnswer,
    out: () => press({ type: "circle.out" }),
    lap: () => press({ type: "lap" }),
    slack: (down: boolean) => press({ type: down ? "slack.start" : "slack.end" }),
    sign: (name: string, kind: "count" | "tension" | "danger" | "ease") => press({ type: "signal", payload: { name, class: kind, side } }),
    pause: () => press(paused ? { type: "break.end" } : { type: "break.start", payload: { reason: "rest" } }),
    goOn: () =>
      press({ type: "circle.go", payload: { segment: Math.min(segments.length - 1, (face.stretch?.segment ?? segments.length - 2) + 1) } }),
    more: () => press({ type: "circle.more", payload: { seconds: 60 } }),
  };
}

/** When the ask that goes on began: the first aid since the last gait that was tapped. */
function startOfAsk({ facts }: { readonly facts: readonly { readonly type: string; readonly ms: number }[] }): number {
  return facts.findLast(({ type }) => type === "aid")?.ms ?? Number.NEGATIVE_INFINITY;
}

export type Circle = ReturnType<typeof useCircle>;
