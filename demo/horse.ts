import type { CuePhase } from "@/core/cues";
import { type LadderPlan, type Method, PLAN_DEFAULTS, type Rung } from "@/core/ladder";
import type { Temper } from "@/core/learner";
import { DEFAULT_MASTERY_RULE, type MasteryRule } from "@/core/mastery";
import type { BehaviourInput, HorseInput, RestrictionInput } from "@/core/schemas";
import { type Strand, type StrandKey, type StrandValue, strandFromCatalogue } from "@/core/strands";
import type { DateKind } from "@/core/welfare";
import type { DemoNature } from "./know-sessions";

/** A restriction with its days counted from the day the yard is made. */
export type DemoRestriction = Omit<RestrictionInput, "from_day" | "until_day"> & {
  readonly fromDays: number | null;
  readonly untilDays: number | null;
};

/** What the notes of a stretch of weeks say; one of each is taken. */
export interface StoryNotes {
  /** From this day on, counted from the first. */
  readonly from: number;
  readonly better: readonly string[];
  readonly next: readonly string[];
}

/** What makes a horse's three months its own: who, when and how. Days are counted from the first of ninety-one. */
export interface Story {
  /** Sessions a week, on average. */
  readonly perWeek: number;
  /** Stretches without work, first and last day. */
  readonly rests: readonly (readonly [number, number])[];
  /** Blocks of a session, fewest and most. */
  readonly blocks: readonly [number, number];
  /** Who handles the n-th session, by place in the list of people. */
  readonly handlerOf: (session: number) => number;
  readonly temperOf: (handler: number) => Temper;
  /** Mean lag of the release. A late one teaches less. */
  readonly lagSeconds: (day: number) => number;
  /** Chance that a word is taken. */
  readonly takes: number;
  readonly leaves: { readonly chance: (day: number) => number; readonly to: string } | null;
  /** Begun on a rung of the trainer's own choice, whatever the word says then: the first session from each of these days on. */
  readonly against?: readonly { readonly day: number; readonly rung: number }[];
  /** From this day the weaker side gets a block more; which one begins goes by turns, as the app advises. */
  readonly weakerMoreFrom?: number;
  /** The second version of the ladder, begun once the word before a session was Split so often. */
  readonly split?: { readonly after: number; readonly plan: LadderPlan };
  /** Share of its chance that is left on a rung that lies too far for one step; left out where none does. */
  readonly reach?: (rung: number, version: number) => number;
  /** How it breathes after work: breaths a minute above its own, and how long half of that takes to go. */
  readonly recovery: (day: number) => { readonly above: number; readonly halfMinutes: number };
  /** Work on the circle: seconds asked at the gait after each answer. */
  readonly circle?: { readonly gait: string; readonly radiusMetres: number; readonly seconds: (day: number) => number };
  readonly notes: readonly StoryNotes[];
}

/** One horse of the invented yard, with its one behaviour, its nature and its story. */
export interface DemoHorse {
  readonly horse: HorseInput;
  /** Added to its seed, so that chance tells its story; left out where it does so by itself. */
  readonly draw?: number;
  /** Of a young horse: its age in days on the day the yard is made, so that it is young whenever that is. */
  readonly bornDaysAgo?: number;
  readonly restrictions: readonly DemoRestriction[];
  /** Dates, counted from the day the yard is made. */
  readonly dates: readonly {
    readonly kind: DateKind;
    readonly inDays: number;
    readonly everyWeeks: number | null;
    readonly note: string;
  }[];
  readonly nature: DemoNature;
  /** Whether its second first look was cut off half way. */
  readonly lookCutOff: boolean;
  /** How much longer it waits to answer in a zone of the place it is worked in; 1 is as usual. */
  readonly zoneWaits: Readonly<Record<string, number>>;
  /** Kit used with it, by place in the list. */
  readonly kit: readonly number[];
  readonly behaviour: BehaviourInput;
  readonly plan: LadderPlan;
  readonly place: number;
  readonly way: "timed" | "tally";
  /** What to look at, said on its row of the yard. */
  readonly lookAt: string;
  readonly story: Story;
}

/** A strand of the catalogue, with what the ladder changes of it. */
export const strand = (key: StrandKey, changes: Partial<Strand> = {}): Strand => ({ ...strandFromCatalogue(key, key), ...changes });

/** A phase of an ask. */
export const phase = (label: string, kind: CuePhase["kind"], dwellSeconds: number, profile: CuePhase["profile"] = "steady"): CuePhase => ({
  label,
  kind,
  profile,
  dwellSeconds,
  pulsesPerMinute: profile === "pulse" ? 80 : null,
});

/** A ladder from rows of values, in the order of its strands. */
export function plan(
  method: Method,
  strands: readonly Strand[],
  rows: readonly (readonly StrandValue[])[],
  phases: readonly CuePhase[],
  workingStrandId: string | null,
  changes: { readonly mastery?: MasteryRule; readonly repetitions?: number } = {},
): LadderPlan {
  const rungs: Rung[] = rows.map((row) => ({ values: Object.fromEntries(strands.map((s, i) => [s.id, row[i] as StrandValue])) }));
  return {
    method,
    strands,
    rungs,
    phases,
    maximumSeconds: 20,
    mastery: changes.mastery ?? DEFAULT_MASTERY_RULE,
    schedule: { kind: "every" },
    ...PLAN_DEFAULTS,
    offers: "reinforce",
    workingStrandId,
    plannedRepetitions: changes.repetitions ?? 6,
  };
}

/**
 * A horse handled by somebody who knows the work: half of the first tries at a
 * well cut rung are met, and a dozen good answers bring it near nine in ten.
 * Invented, and plausible; each horse changes what its story needs.
 */
export const HANDLED: Temper = {
  floor: 0.5,
  learning: 0.06,
  unlearning: 0.03,
  kept: 0.62,
  forgettingDays: 60,
  weakSide: "L",
  weakLearning: 0.9,
  meanWaitSeconds: 2,
  freshTrials: 26,
  tension: 0.3,
  stallsAtRung: null,
  stallTrials: 0,
  handledWell: true,
};

/** A number that goes from one to another over the three months, evenly. */
export const over = (from: number, to: number) => (day: number) => from + ((to - from) * Math.min(91, Math.max(0, day))) / 91;
