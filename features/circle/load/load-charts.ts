import { type CircleDigest, circleFigures, type LoadWeek, USUAL_SPEED_MPS } from "@/core/circle";
import { recoveryOf } from "@/core/welfare";
import type { ChartSpec } from "@/ui/chart";

const DAY = { kind: "day", title: "week from" } as const;
const at = (day: string) => Date.parse(`${day}T12:00:00Z`);
const min = (value: number) => `${Math.round(value)} min`;

/** Minutes on the circle each way, week by week. */
export function sidesChart(weeks: readonly LoadWeek[]): ChartSpec {
  return {
    title: "Circling, minutes a week",
    points: weeks.map(({ monday, running }) => ({ x: at(monday), ...(running ? { marks: ["this week is not over"] } : {}) })),
    series: [
      {
        name: "left",
        colour: "tarn",
        style: "line",
        values: weeks.map(({ leftMinutes }) => leftMinutes),
        words: weeks.map(({ leftMinutes }) => min(leftMinutes)),
      },
      {
        name: "right",
        colour: "sage",
        style: "line",
        values: weeks.map(({ rightMinutes }) => rightMinutes),
        words: weeks.map(({ rightMinutes }) => min(rightMinutes)),
      },
      {
        name: "all circling",
        colour: "ink",
        style: "dashes",
        values: weeks.map(({ circlingMinutes }) => circlingMinutes),
        words: weeks.map(({ circlingMinutes }) => min(circlingMinutes)),
      },
    ],
    x: DAY,
    y: { title: "min", least: 0 },
  };
}

/** The turning dose, week by week. */
export function doseChart(weeks: readonly LoadWeek[]): ChartSpec {
  return {
    title: "Turning dose a week",
    points: weeks.map(({ monday, running }) => ({ x: at(monday), ...(running ? { marks: ["this week is not over"] } : {}) })),
    series: [
      {
        name: "dose",
        colour: "ochre",
        style: "line",
        values: weeks.map(({ doseGMinutes }) => doseGMinutes),
        words: weeks.map(({ doseGMinutes }) => (doseGMinutes === null ? null : `${doseGMinutes.toFixed(1)} g·min`)),
      },
    ],
    x: DAY,
    y: { title: "g·min", least: 0 },
  };
}

/** A session on the circle with its day and where it is reviewed. */
export interface DatedDigest {
  readonly id: string;
  readonly startedMs: number;
  readonly digest: CircleDigest;
}

/** How fast breathing came down after each session; null where too few sessions have it. */
export function recoveryChart(horseId: string, sessions: readonly DatedDigest[], resting: number | null): ChartSpec | null {
  const points = sessions.flatMap(({ id, startedMs, digest }) => {
    const readings = (digest.cool?.readings ?? []).map(([wallMs, perMinute]) => ({ wallMs, perMinute }));
    const half = recoveryOf(readings, resting).halfTimeMinutes;
    return half === null ? [] : [{ id, startedMs, half }];
  });
  if (points.length < 2) return null;
  return {
    title: "Breathing comes down by half in",
    points: points.map(({ id, startedMs }) => ({ x: startedMs, href: `/horses/${horseId}/review/${id}` })),
    series: [
      {
        name: "half-time",
        colour: "plum",
        style: "line",
        values: points.map(({ half }) => half),
        words: points.map(({ half }) => `${half.toFixed(1)} min`),
      },
    ],
    x: { kind: "day", title: "session" },
    y: { title: "min", least: 0 },
  };
}

/** The sharpest lean and sideways pull of a session: of its fastest gait on its radius; null without a radius. */
export function sharpest({
  radius,
  speeds,
  seconds,
}: CircleDigest): { readonly gait: string; readonly sidewaysMps2: number; readonly leanDegrees: number } | null {
  if (radius === null) return null;
  let found: { gait: string; sidewaysMps2: number; leanDegrees: number } | null = null;
  for (const gait of ["walk", "trot", "canter"]) {
    if ((seconds[`${gait} L`] ?? 0) + (seconds[`${gait} R`] ?? 0) === 0) continue;
    const { sidewaysMps2, leanDegrees } = circleFigures({
      radiusMetres: radius,
      speedMps: speeds[gait] ?? USUAL_SPEED_MPS[gait] ?? 0,
      minutes: 1,
    });
    if (found === null || leanDegrees > found.leanDegrees) found = { gait, sidewaysMps2, leanDegrees };
  }
  return found;
}
