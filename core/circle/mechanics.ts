/** Standard acceleration of free fall, m/s² (CGPM 1901; ISO 80000-3). */
export const GRAVITY_MPS2 = 9.80665;

/** A stretch on a circle: seconds at a speed on a radius. */
export interface CircleStretch {
  readonly radiusMetres: number;
  readonly speedMps: number;
  readonly minutes: number;
}

/** What a stretch comes to. */
export interface CircleFigures {
  readonly distanceMetres: number;
  readonly laps: number;
  /** v²/r. */
  readonly sidewaysMps2: number;
  /** From the vertical, where the lean balances the sideways pull: atan(v²/(g·r)). */
  readonly leanDegrees: number;
  /** v²/(g·r)·minutes, to compare one session with another, never a medical limit. */
  readonly turningDoseGMinutes: number;
}

/** Once round, in metres. @example lapMetres(10) // 62.83… */
export const lapMetres = (radiusMetres: number): number => 2 * Math.PI * radiusMetres;

/**
 * Motion on a circle at constant speed (textbook mechanics). Horses on the
 * lunge lean close to what it says (Clayton & Sha 2006; Pfau et al. 2012, from memory).
 * @param stretch radius over 0 in m, speed in m/s, minutes.
 * @throws RangeError where the radius is not over 0 or a figure is negative or not finite.
 * @example circleFigures({ radiusMetres: 10, speedMps: 3.3, minutes: 8 }).laps // 25.21…
 */
export function circleFigures({ radiusMetres, speedMps, minutes }: CircleStretch): CircleFigures {
  if (!(radiusMetres > 0) || !Number.isFinite(radiusMetres)) throw new RangeError("A radius over 0 is needed.");
  if (!(speedMps >= 0) || !(minutes >= 0) || !Number.isFinite(speedMps * minutes))
    throw new RangeError("Speed and minutes: 0 or more are needed.");
  const distanceMetres = speedMps * minutes * 60;
  const sidewaysMps2 = speedMps ** 2 / radiusMetres;
  const share = sidewaysMps2 / GRAVITY_MPS2;
  return {
    distanceMetres,
    laps: distanceMetres / lapMetres(radiusMetres),
    sidewaysMps2,
    leanDegrees: (Math.atan(share) * 180) / Math.PI,
    turningDoseGMinutes: share * minutes,
  };
}

/**
 * Speed from counted laps, in m/s.
 * @returns null where no lap or no time was counted.
 * @example speedFromLaps(10, 3, 60) // 3.14…
 */
export function speedFromLaps(radiusMetres: number, laps: number, seconds: number): number | null {
  return laps > 0 && seconds > 0 && radiusMetres > 0 ? (lapMetres(radiusMetres) * laps) / seconds : null;
}

/** Speeds taken where no laps were counted, in m/s (from memory). */
export const USUAL_SPEED_MPS: Readonly<Record<string, number>> = { stand: 0, walk: 1.6, trot: 3.3, canter: 5 };

/** A pace of a person, in metres (common practice, no source). */
export const PACE_METRES = 0.75;
