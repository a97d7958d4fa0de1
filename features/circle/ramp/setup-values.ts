import {
  type CircleCall,
  type CircleCaps,
  type CircleSound,
  circleCaps,
  type RampInput,
  type RampLoad,
  type RampStep,
  rampProblem,
  rampSteps,
  type Ways,
} from "@/core/circle";
import type { PlannerStart } from "@/core/start";
import { rampCapsOf, USUAL_START } from "@/core/today";
import { typedNumber } from "@/ui/form";

/** A session's minutes each way, as typed. */
export interface TypedLoad {
  walk: string;
  trot: string;
  canter: string;
  obstacles: boolean;
}

/** The set-up of a horse on the circle, as typed. */
export interface SetupValues {
  ways: Ways;
  /** Empty where it is not known. */
  stiffer: "L" | "R" | "";
  stifferComes: "first" | "second";
  caps: { session: string; week: string; visits: string };
  sounds: Record<CircleCall, CircleSound>;
  /** Whether the work is raised by steps. */
  raised: boolean;
  from: TypedLoad;
  goal: TypedLoad;
  sessionsAWeek: string;
  radius: string;
  since: string;
}

const typedLoad = ({ walk, trot, canter, obstacles }: RampLoad): TypedLoad => ({
  walk: String(walk),
  trot: String(trot),
  canter: String(canter),
  obstacles,
});

const loadOf = ({ walk, trot, canter, obstacles }: TypedLoad): RampLoad => ({
  walk: typedNumber(walk) ?? Number.NaN,
  trot: typedNumber(trot) ?? Number.NaN,
  canter: typedNumber(canter) ?? Number.NaN,
  obstacles,
});

const shown = (value: number | null) => (value === null ? "" : String(value));

/** What the form begins with: what is kept, and usual values where no ramp runs. */
export function setupValues({ setup, today }: PlannerStart): SetupValues {
  const { ramp } = setup;
  return {
    ways: setup.ways,
    stiffer: setup.stiffer ?? "",
    stifferComes: setup.stifferFirst ? "first" : "second",
    caps: {
      session: shown(setup.caps.sessionMinutes),
      week: shown(setup.caps.weekMinutes),
      visits: shown(setup.caps.weekVisits),
    },
    sounds: { ...setup.sounds },
    raised: ramp !== null,
    from: typedLoad(ramp?.start ?? USUAL_START),
    goal: typedLoad(ramp?.goal ?? { walk: 6, trot: 8, canter: 0, obstacles: true }),
    sessionsAWeek: String(ramp?.sessionsAWeek ?? 3),
    radius: String(ramp?.radiusMetres ?? 8),
    since: ramp?.since ?? today,
  };
}

const ownCaps = ({ caps }: Pick<SetupValues, "caps">) => ({
  sessionMinutes: typedNumber(caps.session),
  weekMinutes: typedNumber(caps.week),
  weekVisits: typedNumber(caps.visits),
});

/** The typed set-up as its route takes it. */
export function setupBody(values: SetupValues, { setup }: PlannerStart) {
  return {
    ways: values.ways,
    stiffer: values.stiffer === "" ? null : values.stiffer,
    stifferFirst: values.stifferComes === "first",
    caps: ownCaps(values),
    sounds: values.sounds,
    plan: setup.plan,
    ramp: values.raised
      ? {
          start: loadOf(values.from),
          goal: loadOf(values.goal),
          sessionsAWeek: Number(values.sessionsAWeek),
          radiusMetres: typedNumber(values.radius),
          since: values.since,
        }
      : null,
  };
}

/** What typed values come to: the caps that would hold, the ramp's steps, and what is wrong. */
export interface JudgedSetup {
  readonly caps: CircleCaps;
  readonly steps: readonly RampStep[];
  /** Why the ramp cannot be laid out so; null where it can or none is wanted. */
  readonly rampProblem: string | null;
  /** Whether two calls have one sound. */
  readonly soundTwice: boolean;
}

/** Judges what is typed by the judges of the circle. */
export function judgeSetup(values: SetupValues, start: PlannerStart): JudgedSetup {
  const { age, allowance, settings } = start;
  const caps = circleCaps({ age, allowance, settings, own: ownCaps(values), ways: values.ways, heat: null });
  const metres = typedNumber(values.radius);
  const input: RampInput | null =
    metres === null
      ? null
      : {
          start: loadOf(values.from),
          goal: loadOf(values.goal),
          sessionsAWeek: Number(values.sessionsAWeek),
          ways: values.ways,
          caps: rampCapsOf(caps, metres, settings.circleCanterMetres),
        };
  const problem = !values.raised ? null : input === null ? "Radius: a number of metres." : rampProblem(input);
  return {
    caps,
    steps: values.raised && input !== null && problem === null ? rampSteps(input) : [],
    rampProblem: problem,
    soundTwice: new Set(Object.values(values.sounds)).size < Object.keys(values.sounds).length,
  };
}
