import type { Criterion } from "../ladder/criterion";
import type { SessionRecord } from "./reduce";

/** One phase that was left for the next by a press: how long it was to be held and how long it was, in seconds. */
export interface HeldPhase {
  readonly trial: number;
  readonly phase: number;
  readonly plannedSeconds: number;
  readonly heldSeconds: number;
}

/** A step counts as kept within this share of the planned dwell (common practice, no source). */
export const DWELL_TOLERANCE = 0.25;

/**
 * Every phase of a session that was left for a clearer one, with the dwell its block planned. Whole trials hold no steps.
 * @example heldPhases(record) // 6 of them
 */
export function heldPhases(record: Pick<SessionRecord, "trials" | "blocks">): HeldPhase[] {
  const held: HeldPhase[] = [];
  for (const trial of record.trials) {
    const criterion: Criterion | null = trial.blockIndex === null ? null : (record.blocks[trial.blockIndex]?.criterion ?? null);
    const planned = criterion?.dwell_s;
    if (planned === undefined || trial.logged === "late") continue;
    trial.phaseSteps.forEach((step, i) => {
      const next = trial.phaseSteps[i + 1];
      const plannedSeconds = planned[step.phase - 1];
      if (next === undefined || plannedSeconds === undefined || next.phase <= step.phase) return;
      held.push({ trial: trial.number, phase: step.phase, plannedSeconds, heldSeconds: (next.ms - step.ms) / 1000 });
    });
  }
  return held;
}

/** Planned against real dwell. */
export interface DwellConsistency {
  readonly n: number;
  readonly within: number;
  /** Share within the tolerance; null without steps. */
  readonly share: number | null;
  readonly tooSoon: number;
  readonly tooLate: number;
}

/**
 * Share of phase steps within ±25 % of the planned dwell.
 * @example dwellConsistency([]) // { n: 0, within: 0, share: null, tooSoon: 0, tooLate: 0 }
 */
export function dwellConsistency(held: readonly HeldPhase[]): DwellConsistency {
  let tooSoon = 0;
  let tooLate = 0;
  for (const { plannedSeconds, heldSeconds } of held) {
    // A hair of slack: 0.75 × 2 s held for 1.5 s is within.
    if (heldSeconds < plannedSeconds * (1 - DWELL_TOLERANCE) - 1e-9) tooSoon++;
    else if (heldSeconds > plannedSeconds * (1 + DWELL_TOLERANCE) + 1e-9) tooLate++;
  }
  const n = held.length;
  const within = n - tooSoon - tooLate;
  return { n, within, share: n === 0 ? null : within / n, tooSoon, tooLate };
}
