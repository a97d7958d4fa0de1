import type { CuePhase } from "../cues";
import { measureGroup, medianOf, type Outcome, wilsonInterval } from "../evidence";
import { type LadderPlan, PLAN_DEFAULTS } from "../ladder";
import type { SessionRecord } from "../record";
import type { Strand } from "../strands";
import { counted, percentSpan } from "../words";

/** One item of the first look. */
export interface FirstLookItem {
  readonly key: string;
  readonly name: string;
  /** What counts, as a sentence on the recorder. */
  readonly asks: string;
  readonly sided: boolean;
  /** Said before it is asked, where it can hurt. */
  readonly caution: string | null;
}

/** The battery, in the order it goes: quiet things first, the horse loose last. */
export const FIRST_LOOK_ITEMS: readonly FirstLookItem[] = [
  {
    key: "poll",
    name: "gives to a downward feel at the poll",
    asks: "Lowers its head to a light feel down on the lead",
    sided: false,
    caution: null,
  },
  { key: "forward", name: "follows a forward feel", asks: "Steps forward to a light feel ahead", sided: false, caution: null },
  { key: "bend", name: "follows a feel to the side", asks: "Turns its head to a light feel, feet still", sided: true, caution: null },
  {
    key: "back-lead",
    name: "steps back from the lead",
    asks: "One step back from the lead",
    sided: false,
    caution: "Stand to one side, not in its way forward.",
  },
  {
    key: "back-chest",
    name: "back from a hand on the chest",
    asks: "One step back from a hand on the chest",
    sided: false,
    caution: "Strike zone: stand beside the shoulder.",
  },
  {
    key: "hind",
    name: "moves the hind away",
    asks: "One hind foot crosses away from you",
    sided: true,
    caution: "Kick zone: stay by the shoulder or farther than a leg reaches.",
  },
  { key: "front", name: "moves the front away", asks: "One fore foot crosses away from you", sided: true, caution: null },
  {
    key: "stick",
    name: "stands while a stick and line move around it",
    asks: "Stands, feet still, while the stick and line move",
    sided: true,
    caution: "Keep the line off the ground round its feet; stop before it must leave.",
  },
  {
    key: "touch",
    name: "touched all over",
    asks: "Stands to be touched from neck to hock",
    sided: true,
    caution: "Kick zone behind the elbow: reach with a stick first.",
  },
  { key: "comes", name: "comes to a person", asks: "Takes the last steps to you by itself", sided: false, caution: null },
  { key: "stays", name: "stays when the person leaves", asks: "Stands ten seconds while you walk away", sided: false, caution: null },
  {
    key: "returns",
    name: "leaves and comes back free",
    asks: "Sent out free, it comes back to you by itself",
    sided: false,
    caution: "Well out of reach of its heels when it is sent.",
  },
];

const phase = (label: string, kind: CuePhase["kind"], dwellSeconds: number): CuePhase => ({
  label,
  kind,
  profile: "steady",
  dwellSeconds,
  pulsesPerMinute: null,
});

/** The ask of every item, from the lightest. */
export const FIRST_LOOK_PHASES: readonly CuePhase[] = [
  phase("breath", "body", 3),
  phase("hand", "point", 3),
  phase("touch", "touch", 3),
  phase("press", "lead", 4),
];

/** Trials an item is asked, at least and at most. */
export const FIRST_LOOK_TRIALS = { least: 1, most: 3 } as const;

/** The name every block of a first look carries as its behaviour. */
export const FIRST_LOOK_BEHAVIOUR = "First look";

/**
 * What a block asked for, as screens name it: an item of the first look by its name, a rung by its number; null where it is neither.
 * @example askedName({ behaviour: "First look", rung: "hind" }) // "moves the hind away"
 */
export const askedName = ({ behaviour, rung }: { readonly behaviour: string; readonly rung: string }): string | null =>
  behaviour === FIRST_LOOK_BEHAVIOUR
    ? (FIRST_LOOK_ITEMS.find(({ key }) => key === rung)?.name ?? null)
    : /^\d+$/.test(rung)
      ? `rung ${rung}`
      : null;

/** One step of the battery: an item on a side, or an item without sides. */
export interface FirstLookStep {
  readonly item: FirstLookItem;
  readonly side: "L" | "R" | null;
}

/** Every step in order, left before right. */
export const FIRST_LOOK_STEPS: readonly FirstLookStep[] = FIRST_LOOK_ITEMS.flatMap((item): FirstLookStep[] =>
  item.sided
    ? [
        { item, side: "L" },
        { item, side: "R" },
      ]
    : [{ item, side: null }],
);

/** Where a battery stands: the step in hand and the next one to go to; null where there is none left. */
export interface BatteryPlace {
  readonly at: number | null;
  readonly next: number | null;
  readonly done: number;
}

/**
 * Finds the battery's place from a session under way. Steps go in order;
 * one that was jumped over comes again at the end.
 * @example batteryPlace({ blocks: [], trials: [] }) // { at: null, next: 0, done: 0 }
 */
export function batteryPlace(record: Pick<SessionRecord, "blocks" | "trials">): BatteryPlace {
  const look = firstLookOf(record);
  const seen = FIRST_LOOK_STEPS.map(({ item, side }) => resultOf(look, item.key, side) !== null);
  const block = record.blocks.at(-1);
  const found = FIRST_LOOK_STEPS.findIndex(({ item, side }) => item.key === block?.rung && side === block.side);
  const at = block === undefined || found < 0 ? null : found;
  const from = at === null ? 0 : at + 1;
  const order = FIRST_LOOK_STEPS.map((_, i) => (from + i) % FIRST_LOOK_STEPS.length);
  return { at, next: order.find((i) => i !== at && seen[i] === false) ?? null, done: look.stepsDone };
}

/**
 * The battery as a plan the recorder can run: one rung an item. It is no ladder; nothing is raised.
 * @example firstLookPlan() // { method: "pressure-release", maximumSeconds: 20, holdOnWrong: true, … }
 */
export function firstLookPlan(): LadderPlan {
  const item: Strand = {
    id: "item",
    key: "form",
    name: "item",
    kind: "levels",
    unit: "",
    levels: FIRST_LOOK_ITEMS.map(({ asks }) => asks),
    harder: "more",
  };
  return {
    method: "pressure-release",
    strands: [item],
    rungs: FIRST_LOOK_ITEMS.map(({ asks }) => ({ values: { item: asks } })),
    phases: FIRST_LOOK_PHASES,
    maximumSeconds: 20,
    mastery: { kind: "first-clean" },
    schedule: { kind: "every" },
    ...PLAN_DEFAULTS,
    offers: "ignore",
    workingStrandId: null,
    plannedRepetitions: 2,
  };
}

/** What a first look showed of one step. Seconds; null where it was not logged. */
export interface FirstLookResult {
  readonly key: string;
  readonly side: "L" | "R" | null;
  readonly n: number;
  readonly met: number;
  readonly outcomes: readonly Outcome[];
  /** Lightest phase that was answered with what was asked for. */
  readonly lightestPhase: number | null;
  /** Seconds after which half of the asks were answered; null where fewer were. */
  readonly halfAnsweredSeconds: number | null;
  /** Phases of the met trials; null where none was noted. */
  readonly metPhases: readonly (number | null)[];
  /** Median ease grade, 0–4. */
  readonly ease: number | null;
}

/** One first look, whole or in part. */
export interface FirstLook {
  readonly results: readonly FirstLookResult[];
  readonly stepsDone: number;
  readonly steps: number;
  /** Cut off before every step had its trial. What was seen is kept. */
  readonly partial: boolean;
}

const stepKey = (key: string, side: "L" | "R" | null) => `${key}|${side ?? ""}`;

/**
 * What a session's blocks show of the battery. Blocks of other behaviours are passed over.
 * @example firstLookOf({ blocks: [], trials: [] }) // { results: [], stepsDone: 0, steps: 17, partial: true }
 */
export function firstLookOf(record: Pick<SessionRecord, "blocks" | "trials">): FirstLook {
  const byStep = new Map<string, SessionRecord["trials"][number][]>();
  for (const trial of record.trials) {
    const block = trial.blockIndex === null ? undefined : record.blocks[trial.blockIndex];
    if (block === undefined || block.behaviour !== FIRST_LOOK_BEHAVIOUR) continue;
    const item = FIRST_LOOK_ITEMS.find(({ key }) => key === block.rung);
    if (item === undefined) continue;
    const key = stepKey(item.key, item.sided ? trial.side : null);
    byStep.set(key, [...(byStep.get(key) ?? []), trial]);
  }
  const results = FIRST_LOOK_STEPS.flatMap(({ item, side }): FirstLookResult[] => {
    const trials = byStep.get(stepKey(item.key, side)) ?? [];
    if (trials.length === 0) return [];
    const met = trials.filter((t) => t.outcome === "met");
    const phases = met.flatMap((t) => (t.phase === null ? [] : [t.phase]));
    const measured = measureGroup(trials, 0);
    const grades = trials.flatMap((t) => (t.ease === null ? [] : [t.ease]));
    return [
      {
        key: item.key,
        side,
        n: trials.length,
        met: met.length,
        outcomes: trials.map((t) => t.outcome),
        lightestPhase: phases.length === 0 ? null : Math.min(...phases),
        halfAnsweredSeconds: measured.latency.halfAnsweredSeconds,
        metPhases: met.map(({ phase }) => phase),
        ease: medianOf(grades),
      },
    ];
  });
  return { results, stepsDone: results.length, steps: FIRST_LOOK_STEPS.length, partial: results.length < FIRST_LOOK_STEPS.length };
}

/**
 * The sides of one look, item by item; null where no item was asked on both. One to three asks a side call no side weaker.
 * @example lookSidesSentence(look) // "Asked on both sides: 5 items. The same on both at 4. Moves the hind away: left 0 of 1, right 1 of 1. …"
 */
export function lookSidesSentence(look: FirstLook): string | null {
  const both = FIRST_LOOK_ITEMS.flatMap(({ key, name, sided }) => {
    const [left, right] = [resultOf(look, key, "L"), resultOf(look, key, "R")];
    return sided && left !== null && right !== null ? [{ name, left, right }] : [];
  });
  if (both.length === 0) return null;
  const differ = both.filter(({ left, right }) => left.met * right.n !== right.met * left.n);
  const same = both.length - differ.length;
  return [
    `Asked on both sides: ${counted(both.length, "item")}.`,
    same === 0 ? null : `The same on both at ${same}.`,
    ...differ.map(
      ({ name, left, right }) =>
        `${name.charAt(0).toUpperCase()}${name.slice(1)}: left ${left.met} of ${left.n}, right ${right.met} of ${right.n}.`,
    ),
    differ.length === 0 ? null : "So few asks call no side weaker.",
  ]
    .filter((part) => part !== null)
    .join(" ");
}

/**
 * The result of a step, or null where it was not looked at.
 * @example resultOf(look, "bend", "L") // { key: "bend", side: "L", n: 1, … }
 */
export function resultOf(look: FirstLook, key: string, side: "L" | "R" | null): FirstLookResult | null {
  return look.results.find((r) => r.key === key && r.side === side) ?? null;
}

/**
 * How strong an answer was, from 0 to 1, for drawing it beside others: one
 * part for each phase it did not need, nothing where none was met.
 * @example strengthOf(result) // 1
 */
export function strengthOf(result: FirstLookResult): number {
  if (result.met === 0) return 0;
  const phases = FIRST_LOOK_PHASES.length;
  // A met answer without a noted phase counts as one at the clearest.
  return (phases + 1 - (result.lightestPhase ?? phases)) / phases;
}

/**
 * How sure a step's share is, in words.
 * @example firstLookWords({ met: 2, n: 3 }) // "2 of 3, too few to tell: anywhere from 21 to 94 %"
 */
export function firstLookWords({ met, n }: Pick<FirstLookResult, "met" | "n">): string {
  const interval = wilsonInterval(met, n);
  if (interval === null) return "not looked at";
  return `${met} of ${n}, too few to tell: anywhere from ${percentSpan(interval)}`;
}
