import type { CirclePlan, CircleSegment, Ways } from "../events/circle-plan";
import { circleFigures, USUAL_SPEED_MPS } from "./mechanics";

/** What a plan comes to before it is worked. */
export interface PlanSums {
  /** Without standing. */
  readonly movingMinutes: number;
  readonly totalMinutes: number;
  readonly leftMinutes: number;
  readonly rightMinutes: number;
  /** Left of left and right; null where nothing moves. */
  readonly leftShare: number | null;
  readonly byGait: Readonly<Record<string, number>>;
  readonly distanceMetres: number;
  /** Null without a radius. */
  readonly laps: number | null;
  readonly turningDoseGMinutes: number | null;
}

/**
 * Sums a plan up.
 * @param speeds the horse's own by gait, in m/s, where laps were counted; otherwise the usual ones.
 * @example planSums({ ...plan, radiusMetres: 10, segments: [{ gait: "trot", side: "L", minutes: 8 }] }).distanceMetres // 1584
 */
export function planSums(
  { segments, radiusMetres }: Pick<CirclePlan, "segments" | "radiusMetres">,
  speeds: Readonly<Record<string, number>> = {},
): PlanSums {
  const byGait: Record<string, number> = {};
  const sums = { moving: 0, total: 0, L: 0, R: 0, distance: 0, laps: 0, dose: 0 };
  for (const { gait, side, minutes } of segments) {
    byGait[gait] = (byGait[gait] ?? 0) + minutes;
    sums.total += minutes;
    if (gait === "stand") continue;
    sums.moving += minutes;
    sums[side] += minutes;
    const figures = circleFigures({ radiusMetres: radiusMetres ?? 10, speedMps: speeds[gait] ?? USUAL_SPEED_MPS[gait] ?? 0, minutes });
    sums.distance += figures.distanceMetres;
    sums.laps += figures.laps;
    sums.dose += figures.turningDoseGMinutes;
  }
  return {
    movingMinutes: sums.moving,
    totalMinutes: sums.total,
    leftMinutes: sums.L,
    rightMinutes: sums.R,
    leftShare: sums.moving > 0 ? sums.L / sums.moving : null,
    byGait,
    distanceMetres: sums.distance,
    laps: radiusMetres === null ? null : sums.laps,
    turningDoseGMinutes: radiusMetres === null ? null : sums.dose,
  };
}

/**
 * A plan to begin with: walk and trot each way, as a start of work is usually made.
 * @example startingPlan("both", "R", minutes) // 6 of them
 */
export function startingPlan(
  ways: Ways,
  first: "L" | "R",
  minutes: { readonly walk: number; readonly trot: number; readonly canter: number },
): CircleSegment[] {
  const way = (side: "L" | "R"): CircleSegment[] => {
    const faster = [
      ...(minutes.trot > 0 ? [{ gait: "trot" as const, side, minutes: minutes.trot }] : []),
      ...(minutes.canter > 0 ? [{ gait: "canter" as const, side, minutes: minutes.canter }] : []),
    ];
    if (faster.length === 0 || minutes.walk < 0.5)
      return [...(minutes.walk > 0 ? [{ gait: "walk" as const, side, minutes: minutes.walk }] : []), ...faster];
    // Walk before and after what is faster, in halves to the quarter minute.
    const before = Math.ceil(minutes.walk * 2) / 4;
    return [{ gait: "walk", side, minutes: before }, ...faster, { gait: "walk", side, minutes: minutes.walk - before }].filter(
      (segment): segment is CircleSegment => segment.minutes > 0,
    );
  };
  return ways === "turn" ? way(first) : [...way(first), ...way(first === "L" ? "R" : "L")];
}
