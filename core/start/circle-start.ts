import type { CircleOverride, CirclePlan, CircleSetup, CircleUse, KitFit, KitPlace } from "../circle";
import { aidPhases, balanceOf } from "../circle";
import type { Day } from "../day";
import { planFromLog } from "../events/circle-log";
import { circles, criterionOf } from "../ladder";
import { type BegunSession, type HorsePack, handlerOfBegun, type Named, type YardFacts } from "../pack";
import type { YardSettings } from "../settings";
import { type CircleState, circleState, todayOf } from "../today";
import type { Age, Allowance, KitKind } from "../welfare";
import { type SessionSoFar, type ShellStart, shellStart } from "./shell";

/** A piece of kit as work on the circle sees it. */
export interface CircleKit extends Named {
  readonly kind: KitKind;
  readonly lengthMetres: number | null;
  /** Whether it is introduced by stages and has a fit card. */
  readonly fitted: boolean;
  readonly place: KitPlace;
  readonly fit: KitFit | null;
}

/** A ladder whose answers are transitions on the circle. */
export interface CircleLadder extends Named {
  readonly rung: number;
  readonly criterion: string;
  /** The gait its rung asks for; null where every transition counts. */
  readonly gait: string | null;
}

/** Everything the planner begins with, as plain data. */
export interface PlannerStart {
  readonly horse: Named & { readonly away: string | null };
  readonly today: Day;
  readonly age: Age | null;
  readonly allowance: Allowance;
  readonly settings: YardSettings;
  readonly setup: CircleSetup;
  readonly use: CircleUse;
  readonly speeds: CircleState["speeds"];
  readonly ramp: CircleState["ramp"];
  readonly rampProblem: string | null;
  readonly plan: CirclePlan;
  readonly kit: readonly CircleKit[];
  readonly ladders: readonly CircleLadder[];
  readonly people: readonly Named[];
  readonly places: readonly (Named & { readonly acrossMetres: number | null })[];
  readonly last: HorsePack["last"];
  readonly limits: readonly string[];
  readonly easyBothWays: boolean;
  /** Minutes on the circle each way in the last fourteen days. */
  readonly balance: ReturnType<typeof balanceOf>;
  /** What the last session on the circle said to do next, or null. */
  readonly doNext: string | null;
}

/** Kinds that are introduced by stages and sit by straps. */
const FITTED: readonly KitKind[] = ["roller or harness", "other"];

function circleKit(pack: HorsePack, yard: YardFacts, state: CircleState): CircleKit[] {
  const fits = new Map(pack.circle.fits);
  return yard.kit.flatMap(({ id, name, kind, lengthMetres }) => {
    const place = state.kit.get(id);
    return place === undefined ? [] : [{ id, name, kind, lengthMetres, fitted: FITTED.includes(kind), place, fit: fits.get(id) ?? null }];
  });
}

const GAITS = ["canter", "trot", "walk"] as const;

/** The gait a ladder is about: its rung's, or the one its name or cue says; null where none is said. */
function gaitOf({ plan, behaviour }: HorsePack["ladders"][number], rung: number): string | null {
  const strand = plan.strands.find(({ key }) => key === "gait");
  const value = strand === undefined ? undefined : plan.rungs[rung - 1]?.values[strand.id];
  const said = `${typeof value === "string" ? value : ""} ${behaviour.name} ${behaviour.cue}`.toLowerCase();
  return GAITS.find((gait) => said.includes(gait)) ?? null;
}

function circleLadders(pack: HorsePack, yard: YardFacts, nowMs: number, handler: string | null): CircleLadder[] {
  return todayOf(pack, yard, nowMs, handler).states.flatMap(({ ladder, next }) => {
    if (!circles(ladder.involves) || next.barred !== null) return [];
    return [
      {
        id: ladder.id,
        name: ladder.behaviour.name,
        rung: next.rung,
        criterion: criterionOf(ladder.plan, next.rung).sentence,
        gait: gaitOf(ladder, next.rung),
      },
    ];
  });
}

/**
 * What the planner of circle work begins with: the same on the server and on a device that has only the pack.
 * @example plannerStart(pack, yard, nowMs).plan.form // "circle"
 */
export function plannerStart(pack: HorsePack, yard: YardFacts, nowMs: number): PlannerStart {
  const state = circleState(pack, yard, nowMs);
  const { today, age, allowance, setup, use, speeds, ramp, rampProblem, plan } = state;
  return {
    horse: { id: pack.horse.id, name: pack.horse.name, away: pack.horse.away },
    today,
    age,
    allowance,
    settings: yard.settings,
    setup,
    use,
    speeds,
    ramp,
    rampProblem,
    plan,
    kit: circleKit(pack, yard, state),
    ladders: circleLadders(pack, yard, nowMs, pack.last.person),
    people: yard.people,
    places: yard.places.map(({ id, name, acrossMetres }) => ({ id, name, acrossMetres })),
    last: pack.last,
    limits: todayOf(pack, yard, nowMs).cautions,
    easyBothWays: state.easyBothWays,
    balance: balanceOf(state.entries, today),
    doNext: pack.worked.find(({ circle }) => circle !== undefined)?.doNext ?? null,
  };
}

/** What the recorder of circle work begins with. */
export interface CircleStart extends ShellStart {
  readonly plan: CirclePlan;
  readonly overrides: readonly CircleOverride[];
  readonly setup: CircleSetup;
  readonly use: CircleUse;
  readonly age: Age | null;
  readonly speeds: CircleState["speeds"];
  readonly kit: CircleKit | null;
  /** The ladder its transitions are asks of; null where they are of none. */
  readonly ladder:
    | (CircleLadder & {
        readonly version: number;
        readonly payload: ReturnType<typeof criterionOf>;
        readonly phases: ReturnType<typeof aidPhases>;
      })
    | null;
}

/**
 * @param begun with its plan; one without is begun with the plan of the day.
 * @example circleStart(pack, yard, 1780304400000, begun, soFar) // { kit: null, … }
 */
export function circleStart(pack: HorsePack, yard: YardFacts, nowMs: number, begun: BegunSession, soFar: SessionSoFar): CircleStart {
  const state = circleState(pack, yard, nowMs, begun.id);
  const handler = handlerOfBegun(begun);
  const now = todayOf(pack, yard, nowMs, handler);
  const plan = begun.circle == null ? state.plan : planFromLog(begun.circle.plan);
  const found = begun.ladder === null ? undefined : pack.ladders.find(({ id }) => id === begun.ladder);
  const rung = begun.start_rung ?? 1;
  return {
    ...shellStart(pack, yard, now, begun, soFar),
    plan,
    overrides: begun.circle?.overrides ?? [],
    setup: state.setup,
    use: state.use,
    age: state.age,
    speeds: state.speeds,
    kit: circleKit(pack, yard, state).find(({ id }) => id === plan.kit) ?? null,
    ladder:
      found === undefined || found.plan.rungs[rung - 1] === undefined
        ? null
        : {
            id: found.id,
            name: found.behaviour.name,
            version: found.version,
            rung,
            criterion: criterionOf(found.plan, rung).sentence,
            payload: criterionOf(found.plan, rung),
            phases: aidPhases(found.plan.phases),
            gait: plan.transitions.to,
          },
  };
}
