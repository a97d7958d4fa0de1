"use client";

import { useEffect, useRef, useState } from "react";
import { CORNER_STAND_SECONDS, cornerStands, edgeZonesOf, freeWork, whereNow } from "@/core/record";
import { chip } from "@/ui/chip";
import { clockWords, percent } from "@/ui/measure";
import { tell } from "../../sound/signals";
import { useActs, useLog, useNow, useStart } from "../state";
import type { AtWork } from "../types";
import { BEEP_SECONDS, type LooksState } from "./use-looks";

const GAITS = ["stand", "walk", "trot", "canter"] as const;
const RADII_METRES = [2, 3, 4, 6, 8, 10] as const;
const QUESTION = "with me";

/** The gaits of the plan's own strand, or the usual ones. */
function gaitsOf(start: AtWork): readonly string[] {
  const levels = start.part.plan.strands.find(({ key }) => key === "gait")?.levels ?? [];
  return levels.length > 0 ? levels : GAITS;
}

/** Connected time, the longest stretch and stands in a corner; they go on by themselves each second. */
export function FreeNumbers() {
  const session = useLog();
  const start = useStart();
  const [, tick] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => tick((n) => n + 1), 1000);
    return () => clearInterval(timer);
  }, []);
  const { record, nowMs } = session;
  const now = nowMs() ?? record.lastMs;
  const free = freeWork(record, now);
  const stands = cornerStands(record, edgeZonesOf(record, start.session.zones), now);
  const { zone } = whereNow(record);
  const last = stands.at(-1);
  const inCorner = last !== undefined && last.zone === zone && record.finishMs === null && now - last.startMs - last.seconds * 1000 < 1500;
  const told = useRef(0);
  useEffect(() => {
    if (stands.length > told.current) tell("stands");
    told.current = stands.length;
  }, [stands.length]);
  return (
    <span
      className="figures flex max-h-8 flex-wrap gap-x-2 overflow-hidden leading-tight desk:max-h-none desk:text-base"
      data-testid="free"
    >
      <span className="font-semibold">
        {free.isAway ? `away ${clockWords(free.awayNowSeconds)}` : `with you ${clockWords(free.connectedSeconds)}`}
        {free.connectedShare !== null && `, ${percent(free.connectedShare)}`}
      </span>
      <span className="text-soft">longest {clockWords(free.longestConnectedSeconds)}</span>
      <span className="text-soft">left {free.departures}×</span>
      <span className="text-soft">turned {free.directionChanges}×</span>
      {inCorner && (
        <strong className="text-brick">
          stands at {last.zone} {Math.floor(last.seconds)} s
        </strong>
      )}
      {!inCorner && stands.length > 0 && (
        <span className="text-brick">
          {stands.length}× over {CORNER_STAND_SECONDS} s in a corner
        </span>
      )}
    </span>
  );
}

/** A look at each beep: with the handler or not. */
function Looks({ looks: { sinceMs, beep, toggle } }: { looks: LooksState }) {
  const session = useLog();
  const act = useActs();
  const looks = session.record.facts.filter((fact) => fact.type === "sample").filter(({ payload }) => payload.question === QUESTION);
  const yes = looks.filter(({ payload }) => payload.answer === "yes").length;
  const answered = useRef(0);
  const take = (answer: "yes" | "no") => {
    if (beep < 1 || answered.current === beep) return;
    answered.current = beep;
    act.sample(QUESTION, answer, beep, BEEP_SECONDS);
  };
  return (
    <span className="flex shrink-0 items-center gap-1.5">
      <button type="button" aria-pressed={sinceMs !== null} className={chip(sinceMs !== null)} onClick={toggle}>
        looks
      </button>
      {sinceMs !== null && (
        <>
          <button type="button" className={chip(false)} disabled={beep < 1} onClick={() => take("yes")}>
            with me
          </button>
          <button type="button" className={chip(false)} disabled={beep < 1} onClick={() => take("no")}>
            not
          </button>
          <span className="figures text-sm text-soft">
            {yes} of {looks.length}
          </span>
        </>
      )}
    </span>
  );
}

/** Work at liberty: gaits, direction and circle, departures, connected time. */
export function FreeStrip({ looks }: { looks: LooksState }) {
  const act = useActs();
  const session = useLog();
  const start = useStart();
  const { block } = useNow();
  const { record, nowMs } = session;
  const { gait, direction, radiusMetres, isAway } = freeWork(record, nowMs());
  const circle = start.part.plan.strands.find(({ key }) => key === "circle");
  const planned = circle === undefined ? undefined : start.part.plan.rungs[Number(block?.rung) - 1]?.values[circle.id];
  const [radius, setRadius] = useState<number | null>(radiusMetres ?? (typeof planned === "number" ? planned : null));
  const side = direction ?? "left";
  const log = (next: { gait?: string; direction?: string; radius?: number | null }) =>
    act.gait(next.gait ?? gait ?? "stand", next.direction ?? side, next.radius === undefined ? radius : next.radius);
  return (
    <fieldset className="flex min-w-0 flex-wrap gap-1.5" aria-label="Free work">
      <button type="button" aria-pressed={isAway} onClick={act.away} className={`${chip(isAway)} border-dashed`}>
        {isAway ? "is back" : "leaves"}
      </button>
      {gaitsOf(start).map((one) => (
        <button key={one} type="button" aria-pressed={gait === one} onClick={() => log({ gait: one })} className={chip(gait === one)}>
          {one}
        </button>
      ))}
      <button
        type="button"
        aria-label={`going ${side}, change direction`}
        onClick={() => log({ direction: side === "left" ? "right" : "left" })}
        className={chip(false)}
      >
        {side === "left" ? "↺ left" : "↻ right"}
      </button>
      <select
        aria-label="Circle distance"
        value={radius ?? ""}
        onChange={(event) => {
          const metres = event.target.value === "" ? null : Number(event.target.value);
          setRadius(metres);
          if (metres !== null) log({ radius: metres });
        }}
        className={`${chip(false)} figures`}
      >
        <option value="">circle</option>
        {[...new Set([...RADII_METRES, ...(radius === null ? [] : [radius])])]
          .sort((a, b) => a - b)
          .map((metres) => (
            <option key={metres} value={metres}>
              {metres} m
            </option>
          ))}
      </select>
      <Looks looks={looks} />
    </fieldset>
  );
}
