import type { CuePhase, Movement } from "../cues";
import { type LadderPlan, type Method, PLAN_DEFAULTS, type Rung, type Ways } from "../ladder";
import { DEFAULT_MASTERY_RULE, type MasteryRule } from "../mastery";
import type { Strand, StrandValue } from "../strands";
import type { Involvement } from "../welfare/restrictions";
import type { Prerequisite } from "./prerequisite";

export const FAMILIES = ["in hand", "circle", "free", "driving path"] as const;
export type Family = (typeof FAMILIES)[number];

/** What goes wrong, by a sign one can see, and what to change. */
export interface CommonFault {
  readonly sign: string;
  /** The strand to ease, by id, the cue phase to go back to, counted from 1, or to stop asking: distress is never met with "accept less calm". */
  readonly change: { readonly strand: string } | { readonly phase: number } | { readonly stop: true };
  readonly then: string;
}

/** A rule of thumb. None of these has a source: trainers say it, nobody has measured it here. */
export interface RuleOfThumb {
  readonly text: string;
  readonly basis: "common practice";
}

/** One way in which good trainers teach a behaviour; the first of a list is the template as it stands. */
export interface TemplateWay {
  readonly key: string;
  readonly name: string;
  readonly reason: string;
  /** What is other than in the first way: its own rungs, and what goes with them. */
  readonly changes: Partial<
    Pick<
      BehaviourTemplate,
      | "strands"
      | "rungs"
      | "workingStrandId"
      | "prerequisites"
      | "askByFeel"
      | "askForFood"
      | "mastery"
      | "masteryReason"
      | "plannedRepetitions"
      | "involves"
      | "cautions"
      | "faults"
      | "watch"
      | "rulesOfThumb"
      | "kit"
    >
  >;
  /** What it chooses where the ladder itself asks which way. */
  readonly ways?: Ways;
}

/** A behaviour of the library: everything a ladder can begin with. */
export interface BehaviourTemplate {
  readonly key: string;
  readonly name: string;
  readonly family: Family;
  readonly why: string;
  readonly finished: string;
  readonly cue: string;
  readonly movement: Movement;
  readonly free: boolean;
  readonly involves: readonly Involvement[];
  readonly kit: readonly string[];
  /** Behaviours of the library, by key, with the values they must have reached; touches of the body map among them. */
  readonly prerequisites: readonly Prerequisite[];
  /** The item of the first look that tests a part of it, with the values one met answer shows, by strand name; null where none does. */
  readonly tested: { readonly item: string; readonly values: Readonly<Record<string, StrandValue>> } | null;
  readonly strands: readonly Strand[];
  readonly rungs: readonly Readonly<Record<string, StrandValue>>[];
  readonly workingStrandId: string | null;
  /** The ask where a feel is used, and where a mark and food teach it; null where a way makes no sense here. */
  readonly askByFeel: readonly CuePhase[] | null;
  readonly askForFood: readonly CuePhase[] | null;
  readonly maximumSeconds: number;
  readonly plannedRepetitions: number;
  readonly mastery: MasteryRule;
  /** Why it moves on by that rule. */
  readonly masteryReason: string;
  /** Where it is done differently by good trainers, each way with its own rungs; empty where it is not. */
  readonly ways: readonly TemplateWay[];
  readonly faults: readonly CommonFault[];
  readonly cautions: readonly string[];
  /** What to watch in the horse. */
  readonly watch: readonly string[];
  readonly rulesOfThumb: readonly RuleOfThumb[];
}

/** The methods a template can be taught by. @example methodsOf({ … }) // ["marker-food"] */
export function methodsOf({ askByFeel, askForFood }: Pick<BehaviourTemplate, "askByFeel" | "askForFood">): Method[] {
  return [
    ...(askByFeel === null ? [] : (["pressure-release", "combined"] as const)),
    ...(askForFood === null ? [] : (["marker-food"] as const)),
  ];
}

/**
 * The method a plan begins with, the same wherever it is made: release, mark
 * and food together where the behaviour can be asked by feel, otherwise the
 * first way it is taught. Without a template it is the same.
 * @example defaultMethod(null) // "combined"
 */
export function defaultMethod(template: Pick<BehaviourTemplate, "askByFeel" | "askForFood"> | null): Method {
  const methods = template === null ? [] : methodsOf(template);
  return methods.includes("combined") ? "combined" : (methods[0] ?? "combined");
}

/**
 * A template as one of its ways teaches it.
 * @throws RangeError where it has no way of that key.
 * @example taughtBy(followFeel, "straight").rungs[0] // begins straight ahead
 */
export function taughtBy(template: BehaviourTemplate, wayKey: string): BehaviourTemplate {
  const way = template.ways.find(({ key }) => key === wayKey);
  if (way === undefined) throw new RangeError(`${template.name} is not taught by way of ${wayKey}`);
  return { ...template, ...way.changes };
}

/** Start and goal of each strand, by id. @example startAndGoal({ … }) // 4 of them */
export function startAndGoal({ rungs, strands }: BehaviourTemplate): { strand: Strand; start: StrandValue; goal: StrandValue }[] {
  return strands.map((strand) => ({ strand, start: rungs[0]?.[strand.id] ?? "", goal: rungs.at(-1)?.[strand.id] ?? "" }));
}

/** An ask with fewer phases knows no clearer one than its last; rungs that then ask the same as the one before are left out. */
function rungsWithin({ strands, rungs }: BehaviourTemplate, phases: number): Rung[] {
  const clamped = rungs.map((values) =>
    Object.fromEntries(strands.map(({ id, key }) => [id, key === "lightness" ? Math.min(Number(values[id]), phases) : (values[id] ?? "")])),
  );
  return clamped
    .filter((values, i) => i === 0 || strands.some(({ id }) => values[id] !== clamped[i - 1]?.[id]))
    .map((values) => ({ values }));
}

/**
 * A template as it is asked for: by one of its ways, or as it stands where it
 * has none of that key; and what the ladder's own questions then take.
 * @example inTheWay(template, "side")
 */
export function inTheWay(template: BehaviourTemplate, wayKey: unknown): { readonly template: BehaviourTemplate; readonly ways: Ways } {
  const way = template.ways.find(({ key }) => key === wayKey) ?? template.ways[0];
  return way === undefined ? { template, ways: {} } : { template: taughtBy(template, way.key), ways: { ...way.ways, taught: way.key } };
}

/** What a way says beside its rungs: to mind, to watch, what goes wrong, rules of thumb. */
export type WayWords = Pick<BehaviourTemplate, "cautions" | "faults" | "watch" | "rulesOfThumb" | "kit">;

const NO_WORDS: WayWords = { cautions: [], faults: [], watch: [], rulesOfThumb: [], kit: [] };

/**
 * The words of the way a ladder was chosen by: the ladder's page, the recorder
 * and the card all ask this. A fault whose strand or phase the ladder no
 * longer has would say nothing and is left out.
 * @param template the ladder's template; undefined or null where it has none.
 * @example wordsOfWay(load, plan).cautions // those of "led on" where plan.ways.taught is "lead-on"
 */
export function wordsOfWay(
  template: BehaviourTemplate | undefined | null,
  plan: Pick<LadderPlan, "ways" | "strands" | "phases">,
): WayWords {
  if (template == null) return NO_WORDS;
  const { cautions, faults, watch, rulesOfThumb, kit } = inTheWay(template, plan.ways.taught).template;
  const strands = new Set(plan.strands.map(({ id }) => id));
  const told = ({ change }: CommonFault) =>
    "stop" in change || ("phase" in change ? change.phase <= plan.phases.length : strands.has(change.strand));
  return { cautions, faults: faults.filter(told), watch, rulesOfThumb, kit };
}

/**
 * What to change where something goes wrong, in words: the same on every screen and card.
 * @example faultWords({ sign: "It sweats", change: { stop: true }, then: "…" }, strands) // "stop asking"
 */
export function faultWords({ change }: CommonFault, strands: readonly Strand[]): string {
  if ("stop" in change) return "stop asking";
  if ("phase" in change) return `go back to cue ${change.phase}`;
  return `make it easier: ${strands.find(({ id }) => id === change.strand)?.name ?? change.strand}`;
}

/**
 * What a horse's own behaviour begins with from a template.
 * @example behaviourFromTemplate(template) // { movement: "slower", free: false, template: "walk-at-end", … }
 */
export function behaviourFromTemplate(template: BehaviourTemplate) {
  const { key, name, finished, cue, why, movement, free, involves, prerequisites } = template;
  return {
    name,
    finished,
    cue,
    why,
    movement,
    free,
    involves: [...involves],
    template: key,
    prerequisites: prerequisites.map((need) => ({ ...need, values: { ...need.values }, maxPhase: need.maxPhase })),
  };
}

/**
 * A ladder's first plan from a template.
 * @throws RangeError where the template is not taught by that method.
 * @example planFromTemplate(template, "combined") // { holdOnWrong: true, firstTouchCentimetres: null, transfer: null, … }
 */
export function planFromTemplate(template: BehaviourTemplate, method: Method, ways: Ways = {}): LadderPlan {
  const phases = method === "marker-food" ? template.askForFood : template.askByFeel;
  if (phases === null) throw new RangeError(`${template.name} is not taught by ${method}`);
  return {
    ...PLAN_DEFAULTS,
    method,
    strands: template.strands,
    rungs: rungsWithin(template, phases.length),
    phases,
    maximumSeconds: template.maximumSeconds,
    mastery: template.mastery,
    schedule: { kind: "every" },
    feeding: { ...PLAN_DEFAULTS.feeding, reinforcer: method === "pressure-release" ? "scratch" : "food" },
    offers: method === "marker-food" ? "reinforce" : "settle",
    workingStrandId: template.workingStrandId,
    plannedRepetitions: template.plannedRepetitions,
    ways,
  };
}

export const TEMPLATE_DEFAULTS = {
  free: false,
  involves: [],
  prerequisites: [],
  tested: null,
  askForFood: null,
  askByFeel: null,
  workingStrandId: null,
  maximumSeconds: 20,
  plannedRepetitions: 8,
  mastery: DEFAULT_MASTERY_RULE,
  masteryReason: "",
  ways: [],
} as const satisfies Partial<BehaviourTemplate>;
