import type { Outcome } from "../evidence/group";
import type { Criterion } from "../ladder/criterion";
import { shortfallOf } from "./met-check";
import type { Trial } from "./trial";

/** What is put right of a trial, as a correction of its first event carries it under `right`. What is not named stays. */
export interface RightTrial {
  readonly outcome?: Outcome;
  readonly phase?: number;
  readonly side?: "L" | "R";
  readonly value?: number;
  readonly ease?: number;
  readonly movement?: number;
  readonly zone?: string;
  readonly note?: string;
}

/**
 * A trial as it is put right. An outcome that is named is the trainer's last
 * word; otherwise a tap of met is checked anew against the rung with what
 * changed. Times are left as they were measured.
 * @example putRight(trial, { phase: 1 }, criterion).shortfall // null where the phase was all that fell short
 */
export function putRight(trial: Trial, right: RightTrial, criterion: Criterion | null): Trial {
  const { outcome, phase = trial.phase, side = trial.side, value = trial.value, ease = trial.ease, zone = trial.zone } = right;
  const { movement = trial.movement } = right;
  const { handlerActs } = trial;
  const tapped = outcome ?? trial.tapped;
  const good = tapped === "met" || tapped === "try";
  const latencySeconds = good ? trial.latencySeconds : null;
  const stayedSeconds = criterion?.stay_s === undefined ? null : value;
  const shortfall =
    outcome === undefined && tapped === "met" && criterion !== null
      ? shortfallOf(criterion, { phase, latencySeconds, value, stayedSeconds, side, ease, movement, handlerActs })
      : null;
  return {
    ...trial,
    tapped,
    outcome: shortfall === null ? tapped : "try",
    shortfall,
    overridden: trial.overridden || outcome !== undefined,
    phase,
    side,
    value,
    unit: right.value === undefined ? trial.unit : (criterion?.working?.unit ?? trial.unit),
    ease,
    movement,
    zone,
    latencySeconds,
    reinforced: good ? trial.reinforced : false,
    note: right.note ?? trial.note,
  };
}
