import {
  type CircleCaps,
  type CircleCaution,
  type CirclePlace,
  type CirclePlan,
  type CircleSegment,
  type CircleSetup,
  type CircleUse,
  circleCaps,
  circlingMinutesOf,
  digestAt,
  easyBothWays,
  firstSide,
  type KitPlace,
  kitPlace,
  type LoadEntry,
  movingSecondsOf,
  planCautions,
  type RampDone,
  type RampPlace,
  type RampPlanned,
  type RampStep,
  rampCalendar,
  rampPlace,
  rampProblem,
  rampSteps,
  sideOfDigest,
  startingPlan,
  VISIT_MINUTES,
  wornAt,
} from "../circle";
import { addDays, type Day, dayIn } from "../day";
import { medianOf } from "../evidence";
import { circles } from "../ladder";
import type { HorsePack, PackWorked, YardFacts } from "../pack";
import { MILLISECONDS_PER_DAY } from "../units";
import { type Age, type Allowance, daysBetween } from "../welfare";
import { careOn } from "./care";

/** What of a pack the circle needs: no trials. */
export type CirclePack = Pick<HorsePack, "horse" | "restrictions" | "worked" | "circle"> & {
  readonly ladders: readonly Pick<HorsePack["ladders"][number], "id" | "involves" | "behaviour">[];
};

/** Ladders that go on a circle. */
const circlingLadders = (ladders: readonly { readonly id: string; readonly involves: readonly string[] }[]) =>
  new Set(ladders.filter(({ involves }) => circles(involves)).map(({ id }) => id));

/** Circling minutes of a session: those of its plan, or of the ladders in it that go on a circle. */
function circlingOf(
  { circle, ladders, seconds }: Pick<PackWorked, "circle" | "ladders" | "seconds">,
  circling: ReadonlySet<string>,
): number {
  if (circle !== undefined) return circlingMinutesOf(circle);
  return ladders.reduce((sum, id, i) => (circling.has(id) ? sum + (seconds?.[i] ?? 0) : sum), 0) / 60;
}

/** When sessions began, of a horse's. */
const startsOf = (worked: readonly Pick<PackWorked, "startedMs">[]) => worked.flatMap(({ startedMs }) => startedMs ?? []);

/**
 * A session as it stands at a moment. One that nobody ended runs on, until the
 * horse's next one began: it goes in one of them.
 */
function ranOn<One extends Pick<PackWorked, "circle">>(one: One, startsMs: readonly number[], nowMs: number): One {
  const { circle } = one;
  if (circle?.running === undefined) return one;
  const { sinceMs } = circle.running;
  return { ...one, circle: digestAt(circle, Math.min(nowMs, ...startsMs.filter((ms) => ms > sinceMs))) };
}

/**
 * Sessions and entries by hand as the load book has them, by day.
 * One that nobody ended counts as its plan runs, until the horse's next one.
 * @param ladders the horse's, also those put away where they are known.
 * @example loadEntriesOf(found, ladders, [], "UTC", 1775044800000) // 54 of them
 */
export function loadEntriesOf(
  found: readonly Omit<PackWorked, "doNext" | "trials" | "pieces" | "weighedGrams">[],
  ladders: readonly { readonly id: string; readonly involves: readonly string[]; readonly behaviour: { readonly free: boolean } }[],
  byHand: NonNullable<HorsePack["circle"]>["byHand"],
  timeZone: string,
  nowMs: number,
): LoadEntry[] {
  const startsMs = startsOf(found);
  const worked = found.map((one) => ranOn(one, startsMs, nowMs));
  const circling = circlingLadders(ladders);
  const free = new Set(ladders.filter(({ behaviour }) => behaviour.free).map(({ id }) => id));
  const entries = worked.flatMap((one): LoadEntry[] =>
    one.startedMs === null
      ? []
      : [
          {
            day: dayIn(one.startedMs, timeZone),
            kind: one.circle !== undefined ? one.circle.form : one.ladders.some((id) => free.has(id)) ? "free" : "in hand",
            minutes:
              one.circle === undefined
                ? one.workSeconds / 60
                : Object.values(one.circle.seconds).reduce((sum, seconds) => sum + seconds, 0) / 60,
            circlingMinutes: circlingOf(one, circling),
            digest: one.circle ?? null,
            byHand: false,
          },
        ],
  );
  for (const { day, kind, minutes } of byHand)
    entries.push({ day, kind, minutes, circlingMinutes: kind === "circle" ? minutes : 0, digest: null, byHand: true });
  return entries.sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0));
}

/** Where a horse stands on the circle at a moment: how it works, what may be, what was. */
export interface CircleState {
  readonly today: Day;
  readonly setup: CircleSetup;
  readonly age: Age | null;
  readonly allowance: Allowance;
  /** By the way of the setup. */
  readonly caps: CircleCaps;
  readonly use: CircleUse;
  /** Speeds counted from laps in the last sessions, by gait, in m/s. */
  readonly speeds: Readonly<Record<string, number>>;
  readonly ramp: {
    readonly steps: readonly RampStep[];
    readonly place: RampPlace;
    readonly planned: readonly RampPlanned[];
    readonly done: readonly RampDone[];
  } | null;
  /** Why the ramp does not hold any more, or null. */
  readonly rampProblem: string | null;
  /** Where each piece of kit stands with this horse, by its id. */
  readonly kit: ReadonlyMap<string, KitPlace>;
  readonly entries: readonly LoadEntry[];
  /** One way a day in turn has done its work: the walk at the end was easy the last time to each hand. */
  readonly easyBothWays: boolean;
  /** The plan to begin with: of today's step, otherwise the one last saved, otherwise as work usually begins. */
  readonly plan: CirclePlan;
}

const LAST_SPEEDS = 10;
/** As work on the circle usually begins, minutes each way (common practice, no source). */
export const USUAL_START = { walk: 8, trot: 2, canter: 0, obstacles: false } as const;

const emptyPlan = (setup: CircleSetup, segments: readonly CircleSegment[], radius: number): CirclePlan => ({
  form: "circle",
  radiusMetres: radius,
  radiusBy: "line",
  segments,
  transitions: { by: "will", every: null, to: null },
  obstacles: [],
  ledFirst: false,
  ways: setup.ways,
  kit: null,
  kitStage: null,
  lines: null,
});

/**
 * Where a horse stands on the circle: the same for the planner, the route that
 * begins a session, the recorder and the load book. Cost grows with the sessions in the pack.
 * @param but a session that is left out: the one about to be worked.
 * @example circleState(pack, yard, 1780293600000) // { today: "2026-06-01", ramp: null, rampProblem: null, … }
 */
export function circleState(pack: CirclePack, yard: YardFacts, nowMs: number, but: string | null = null): CircleState {
  const { settings, timeZone } = yard;
  const today = dayIn(nowMs, timeZone);
  const setup = pack.circle.setup;
  const { allowance, age } = careOn(pack.horse, pack.restrictions, today, settings);
  const circling = circlingLadders(pack.ladders);
  const startsMs = startsOf(pack.worked);
  const worked = pack.worked
    .flatMap((one) =>
      one.startedMs === null || one.id === but
        ? []
        : [
            {
              ...ranOn(one, startsMs, nowMs),
              startedMs: one.startedMs,
              day: dayIn(one.startedMs, timeZone),
              ended: one.circle?.running === undefined,
            },
          ],
    )
    .sort((a, b) => a.startedMs - b.startedMs);
  const entries = loadEntriesOf(worked, pack.ladders, pack.circle.byHand, timeZone, nowMs);

  // Sessions by the hour, entries by hand by the day.
  const weekAgo = nowMs - 7 * MILLISECONDS_PER_DAY;
  const week = [
    ...worked
      .filter(({ startedMs }) => startedMs >= weekAgo && startedMs <= nowMs)
      .map((one) => ({ day: one.day, minutes: circlingOf(one, circling) })),
    ...entries
      .filter(({ byHand, day }) => byHand && day > addDays(today, -7) && day <= today)
      .map((one) => ({ day: one.day, minutes: one.circlingMinutes })),
  ];
  const circled = entries.filter(({ circlingMinutes, day }) => circlingMinutes >= VISIT_MINUTES && day <= today);
  const last = circled.at(-1);
  const side = last?.digest == null ? null : sideOfDigest(last.digest);
  // How one went that nobody has ended is not known.
  const digests = worked.flatMap(({ circle, day, ended }) => (circle === undefined || !ended ? [] : [{ circle, day }]));
  const kit = new Map<string, KitPlace>();
  for (const { id } of yard.kit) kit.set(id, kitPlace(digests.filter(({ circle }) => circle.kit === id).map(({ circle }) => circle)));

  const caps = circleCaps({ age, allowance, settings, own: setup.caps, ways: setup.ways, heat: null });
  const use: CircleUse = {
    weekMinutes: week.reduce((sum, { minutes }) => sum + minutes, 0),
    weekVisits: week.filter(({ minutes }) => minutes >= VISIT_MINUTES).length,
    todayMinutes: week.filter(({ day }) => day === today).reduce((sum, { minutes }) => sum + minutes, 0),
    daysSince: last === undefined ? null : daysBetween(last.day, today),
    lastSide: side === "both" ? null : side,
    kitWorn: true,
  };
  const speeds = Object.fromEntries(
    ["walk", "trot", "canter"].flatMap((gait) => {
      const mps = medianOf(digests.slice(-LAST_SPEEDS).flatMap(({ circle }) => circle.speeds[gait] ?? []));
      return mps === null ? [] : [[gait, mps]];
    }),
  );
  const first = firstSide(setup).side;
  const ramp = rampOf(setup, caps, settings.circleCanterMetres, digests, today, first);
  const step = ramp?.state?.steps[ramp.state.place.step];
  const side_ = ramp?.state?.place.side ?? (setup.ways === "turn" && use.lastSide !== null ? (use.lastSide === "L" ? "R" : "L") : first);
  const plan =
    step !== undefined && setup.ramp !== null
      ? {
          ...emptyPlan(setup, startingPlan(setup.ways, side_, step), setup.ramp.radiusMetres),
          obstacles: step.obstacles ? ["a pole on the circle"] : [],
        }
      : (setup.plan ?? emptyPlan(setup, startingPlan(setup.ways, side_, USUAL_START), 8));
  return {
    today,
    setup,
    age,
    allowance,
    caps,
    use,
    speeds,
    ramp: ramp?.state ?? null,
    rampProblem: ramp?.problem ?? null,
    kit,
    entries,
    easyBothWays: setup.ways === "turn" && easyBothWays(digests.map(({ circle }) => circle)),
    plan,
  };
}

function rampOf(
  setup: CircleSetup,
  caps: CircleCaps,
  canterMetres: number,
  digests: readonly { readonly circle: NonNullable<PackWorked["circle"]>; readonly day: Day }[],
  today: Day,
  first: "L" | "R",
): { readonly state: CircleState["ramp"]; readonly problem: string | null } | null {
  const { ramp, ways } = setup;
  if (ramp === null) return null;
  const input = {
    start: ramp.start,
    goal: ramp.goal,
    sessionsAWeek: ramp.sessionsAWeek,
    ways,
    caps: rampCapsOf(caps, ramp.radiusMetres, canterMetres),
  };
  const problem = rampProblem(input);
  if (problem !== null) return { state: null, problem };
  const steps = rampSteps(input);
  const done = digests.flatMap(({ circle, day }): RampDone[] => {
    const side = sideOfDigest(circle);
    return circle.form !== "circle" || day < ramp.since || side === null
      ? []
      : [{ day, minutes: movingSecondsOf(circle) / 60, side, poor: circle.poor, easy: circle.easy }];
  });
  const place = rampPlace(steps, ways, done, today, { first });
  const lastDay = done.at(-1)?.day;
  const next = lastDay === undefined ? today : addDays(lastDay, Math.max(1, Math.round(7 / ramp.sessionsAWeek)));
  return {
    state: { steps, place, done, planned: rampCalendar(steps, ways, place, next < today ? today : next, ramp.sessionsAWeek) },
    problem: null,
  };
}

/**
 * What a ramp may never pass, of a horse's caps and a radius.
 * @example rampCapsOf(caps, 10, 20) // { sessionMinutes: 30, weekMinutes: 1, weekVisits: null, … }
 */
export const rampCapsOf = (caps: CircleCaps, radiusMetres: number, canterMetres: number) => ({
  sessionMinutes: caps.sessionMinutes.value,
  weekMinutes: caps.weekMinutes?.value ?? null,
  weekVisits: caps.weekVisits?.value ?? null,
  canter: radiusMetres * 2 >= canterMetres,
});

/** A cool-down that was begun and not ended. */
export interface OpenCoolDown {
  readonly session: string;
  readonly startedMs: number;
  readonly handedTo: string | null;
}

/** Cool-downs of the last hours that nobody has ended: what is older is history. */
export const COOL_HOURS = 12;

/** @example openCoolDowns(pack.worked, nowMs) // those to be gone on with, newest first */
export const openCoolDowns = (worked: readonly Pick<PackWorked, "id" | "startedMs" | "circle">[], nowMs: number): OpenCoolDown[] =>
  worked.flatMap(({ id, startedMs, circle }) =>
    startedMs === null || circle?.cool == null || circle.cool.ended !== null || startedMs < nowMs - COOL_HOURS * 3_600_000
      ? []
      : [{ session: id, startedMs, handedTo: circle.cool.handedTo }],
  );

/** What is to be said of a plan for this horse now. @example cautionsOfPlan(state, yard, plan, null).some(({ wall }) => wall) // false */
export function cautionsOfPlan(
  state: CircleState,
  yard: YardFacts,
  plan: CirclePlan,
  placeId: string | null,
  heat: Parameters<typeof circleCaps>[0]["heat"] = null,
): CircleCaution[] {
  const { age, allowance, setup, use } = state;
  const caps = circleCaps({ age, allowance, settings: yard.settings, own: setup.caps, ways: plan.ways, heat });
  const kitWorn = wornAt(plan.kit === null ? null : state.kit.get(plan.kit), plan.kitStage);
  return planCautions(plan, caps, { ...use, kitWorn }, { age, allowance }, yard.settings, circlePlace(yard, placeId));
}

/**
 * A place of the yard as work on the circle sees it; null where none is said.
 * @example circlePlace(yard, placeId) // { name: "round pen", acrossMetres: 18 }
 */
export function circlePlace(yard: YardFacts, id: string | null): CirclePlace | null {
  const place = yard.places.find((one) => one.id === id);
  return place === undefined ? null : { name: place.name, acrossMetres: place.acrossMetres };
}
