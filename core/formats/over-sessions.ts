import type { WeeklyTrend } from "../evidence";
import { type SessionRelief, zoneContrasts } from "../know";
import {
  beforeItGoes,
  changeCosts,
  goodMoment,
  onlyWorked,
  overWeeks,
  type Past,
  type PlanOf,
  raisesOf,
  sidesOverTime,
  type WeeklyChange,
} from "../past";

/** What one horse showed over its sessions, as the screens over weeks read it. */
export interface HorsePast {
  readonly horse: string | null;
  readonly past: Past;
  /** Zones of each place; null where the file holds none. */
  readonly places: readonly { readonly place: string | null; readonly sessions: readonly SessionRelief[] }[] | null;
  /** Whether signs and departures are in it: without them nothing can be said to come before one. */
  readonly moments: boolean;
  readonly planOf: PlanOf;
  /** Behaviours by ladder. */
  readonly names: ReadonlyMap<string, string>;
}

const trend = (of: WeeklyTrend | null) => of && { factor: of.factor, interval95: of.interval, sessions: of.sessions };
const change = (of: WeeklyChange | null) => of && { a_week: of.perWeek, interval95: of.interval, sessions: of.sessions };

const WHO = { L: "left", R: "right" } as const;

function sidesOf(past: Past) {
  const { picture } = sidesOverTime(past);
  const { contrast, weaker, p, headline, reason } = picture;
  return {
    weaker: weaker && WHO[weaker],
    p,
    sessions_compared: contrast.n,
    left: { met: contrast.first.met, n: contrast.first.of },
    right: { met: contrast.second.met, n: contrast.second.of },
    /** Right less left, with what came first taken out where that was needed. */
    right_less_left: contrast.difference,
    order_behind: contrast.orderBehind,
    sentence: `${headline} ${reason}`.trim(),
  };
}

/**
 * What the screens say over sessions, horse by horse, in the words of the
 * formats document: sides, places, changes a week, when sessions turn, what
 * comes before it goes, and what a step cost. The same functions as the screens'.
 * @example overSessions({ horse: null, past, places: null, moments: false, planOf: () => undefined, names: new Map() }).sides[0]?.p
 */
export function overSessions({ horse, past, places, moments, planOf, names }: HorsePast) {
  const ladders = [...new Set(past.trials.flatMap(({ ladder }) => (ladder === null ? [] : [ladder])))].sort();
  const of = (ladder: string): Past => onlyWorked({ ...past, trials: past.trials.filter((trial) => trial.ladder === ladder) });
  const good = goodMoment(past);
  const costs = changeCosts(raisesOf(past, planOf));
  return {
    horse,
    sessions: past.sessions.length,
    sides: [
      { behaviour: null, ...sidesOf(past) },
      ...ladders.flatMap((ladder) => {
        const own = of(ladder);
        return own.trials.some(({ side }) => side !== null) ? [{ behaviour: names.get(ladder) ?? ladder, ...sidesOf(own) }] : [];
      }),
    ],
    places:
      places?.map(({ place, sessions }) => ({
        place,
        zones: zoneContrasts(sessions).map((one) => ({
          zone: one.zone,
          sessions_compared: one.sessions,
          p: one.p,
          pressure_less_elsewhere: one.difference,
          pressure_share: one.here,
          pressure_share_elsewhere: one.elsewhere,
        })),
      })) ?? null,
    trends: ladders.map((ladder) => {
      const weeks = overWeeks(of(ladder), { ladder }, names);
      return {
        behaviour: names.get(ladder) ?? ladder,
        sessions: weeks.points.length,
        responses_per_min: trend(weeks.responseTrend),
        reinforced_per_min: trend(weeks.reinforcedTrend),
        lightness: change(weeks.lightnessChange),
        half_answered_s: change(weeks.halfChange),
        ease: change(weeks.easeChange),
      };
    }),
    turns: { shown: good.shown, p: good.p, usually_after: good.usually, sentence: good.sentence },
    before_it_goes: moments
      ? beforeItGoes(past).precursors.map((one) => ({
          kind: one.kind,
          name: one.name,
          bouts: one.bouts,
          followed: one.followed,
          by_chance: one.base,
          p: one.p,
          sessions: one.sessions,
          called: one.called,
        }))
      : null,
    steps: costs && {
      raises: costs.raises,
      asks: costs.asks,
      kinds: costs.kinds.map(({ kind, name, raises, open, asks, interval }) => ({ kind, name, raises, open, asks, interval95: interval })),
    },
  };
}

/** What {@link overSessions} gives. */
export type OverSessions = ReturnType<typeof overSessions>;
