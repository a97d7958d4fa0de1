import type { CueKind, CuePhase, PressureProfile } from "../cues";
import type { Reinforcer } from "../events/reinforcers";
import { type LadderPlan, methodOf } from "./ladder";

/** What one of two ways changes of a plan; everything else stays alike. */
export interface WayChange {
  /** What a right answer earns. */
  readonly reinforcer?: Reinforcer;
  /** What the ask is made with. */
  readonly cue?: CueKind;
  /** How the ask is made. */
  readonly profile?: PressureProfile;
  /** Where it is asked: a zone of the place. */
  readonly zone?: string;
  /** The piece of kit in hand, by its name. */
  readonly kit?: string;
}

/** Beats a minute of an ask that is made a pulse and had none. */
const PULSES_PER_MINUTE = 60;

const phaseBy = ({ cue, profile }: WayChange, phase: CuePhase, number: number, count: number): CuePhase => ({
  ...phase,
  ...(cue === undefined ? {} : { kind: cue, label: count === 1 ? cue : `${cue} ${number}` }),
  ...(profile === undefined ? {} : { profile, pulsesPerMinute: profile === "pulse" ? (phase.pulsesPerMinute ?? PULSES_PER_MINUTE) : null }),
});

/**
 * A plan as a way has it worked: what is earned, and how it is asked. A way that
 * feeds on a rung worked by release alone releases and feeds; one that does not
 * feed leaves the method as it is.
 * @example planByWay(plan, { reinforcer: "scratch" }).feeding.reinforcer // "scratch"
 */
export function planByWay(plan: LadderPlan, way: WayChange): LadderPlan {
  const { reinforcer } = way;
  const feeds = reinforcer === "food";
  const released = (rung: number) => methodOf(plan, rung) === "pressure-release";
  return {
    ...plan,
    phases: plan.phases.map((phase, i) => phaseBy(way, phase, i + 1, plan.phases.length)),
    ...(reinforcer === undefined ? {} : { feeding: { ...plan.feeding, reinforcer } }),
    ...(feeds && plan.method === "pressure-release" ? { method: "combined" as const } : {}),
    ...(feeds
      ? {
          rungs: plan.rungs.map((rung, i) =>
            rung.method !== undefined && released(i + 1) ? { ...rung, method: "combined" as const } : rung,
          ),
        }
      : {}),
  };
}
