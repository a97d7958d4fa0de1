import { type BehaviourTemplate, type CommonFault, type Prerequisite, TEMPLATE_DEFAULTS, type TemplateWay } from "@/core/behaviour";
import type { CueKind, CuePhase, PressureProfile } from "@/core/cues";
import { type TouchTool, type TouchZone, touchNeed } from "@/core/know";
import { DEFAULT_MASTERY_RULE } from "@/core/mastery";
import { type Strand, type StrandKey, type StrandValue, strandFromCatalogue, VALUE_HERE } from "@/core/strands";

/** What the answer looks like, smallest first. */
export const form = (...levels: readonly string[]): Strand => ({ ...strandFromCatalogue("form", "form"), levels, name: "answer" });

/** A strand of the catalogue under its own key, with levels of the template's own where it has them. */
export const strand = (key: StrandKey, levels?: readonly string[], changes: Partial<Strand> = {}): Strand => ({
  ...strandFromCatalogue(key, key),
  ...(levels === undefined ? {} : { levels }),
  ...changes,
});

/** A strand no other behaviour has: levels, easiest first. */
export const own = (name: string, ...levels: readonly string[]): Strand => ({
  ...strandFromCatalogue("own", name.replaceAll(" ", "-")),
  name,
  kind: "levels",
  unit: "",
  levels,
});

/**
 * A strand whose values stand in a sentence in words of their own: one pattern
 * for all of them, with {} for the value, or words for each and "{}" for any other.
 */
export const said = (of: Strand, words: string | Readonly<Record<string, string>>): Strand => ({
  ...of,
  phrases: typeof words === "string" ? { [VALUE_HERE]: words } : words,
});

/** One side until it is good, then both. */
export const side = (): Strand => strand("side", ["left", "both"]);

const phase =
  (kind: CueKind) =>
  (label: string, dwellSeconds = 3, profile: PressureProfile = "steady"): CuePhase => ({
    label,
    kind,
    profile,
    dwellSeconds,
    pulsesPerMinute: profile === "pulse" ? 80 : null,
  });

/** Phases of an ask by kind: `ask.body("lean back", 2)`. */
export const ask = {
  body: phase("body"),
  point: phase("point"),
  wave: phase("wave"),
  voice: phase("voice"),
  touch: phase("touch"),
  lead: phase("lead"),
  tap: phase("tap"),
  target: phase("food target"),
};

/** A fault by its sign, the strand to ease or the phase to go back to, and what then. */
/** @param change a strand by its id, a cue phase by its number, or "stop": ask no more. */
export const fault = (sign: string, change: string | number, then: string): CommonFault => ({
  sign,
  change: typeof change === "number" ? { phase: change } : change === "stop" ? { stop: true } : { strand: change },
  then,
});

/** What another behaviour must have reached. */
export const needs = (behaviour: string, values: Readonly<Record<string, StrandValue>> = {}, maxPhase?: number): Prerequisite => ({
  behaviour,
  values,
  ...(maxPhase === undefined ? {} : { maxPhase }),
});

/** A touch the body map must hold before: with the tool or one nearer to the hand, soft or softer, on both sides. */
export const touched = (zone: TouchZone, tool: TouchTool): Prerequisite => touchNeed(zone, tool);

/**
 * How sure is sure, by what the work is like, each with its reason. Common
 * practice, no source; the first is the product's own choice (docs/measures.md).
 */
const SURE = {
  light: {
    mastery: DEFAULT_MASTERY_RULE,
    masteryReason: "Light and safe to repeat, so many repetitions cost little and a lucky run does not count.",
  },
  choice: {
    mastery: { kind: "share", met: 8, of: 10, window: "moving" },
    masteryReason: "The choice or the nerve is the horse's own: nine of ten is more than is asked for.",
  },
  five: {
    mastery: { kind: "run", length: 5 },
    masteryReason: "It has to hold when it is needed, and going on and on only tires: five running.",
  },
  soft: {
    mastery: { kind: "run", length: 3 },
    masteryReason: "You see at once how it takes a touch. Three calm ones in a row, and on to the next place.",
  },
  calm: {
    mastery: { kind: "run", length: 3, days: 2 },
    masteryReason: "Risky work: three calm ones in a row, then stop. Repeat on another day.",
  },
  week: {
    mastery: { kind: "run", length: 3, days: 5 },
    masteryReason: "A step in harness should bore the horse before the next one. Three calm ones in a row on five days, so about a week.",
  },
  clean: {
    mastery: { kind: "first-clean", days: 2 },
    masteryReason: "It tires: the first clean one, then stop, and the same again on another day.",
  },
} as const satisfies Readonly<Record<string, Pick<BehaviourTemplate, "mastery" | "masteryReason">>>;

/** One way as it is written: rows and strands of its own where it has them. */
interface WrittenWay extends Omit<TemplateWay, "changes"> {
  readonly strands?: readonly Strand[];
  readonly rows?: readonly (readonly number[])[];
  readonly changes?: TemplateWay["changes"];
}

type Written = Omit<BehaviourTemplate, keyof typeof TEMPLATE_DEFAULTS | "rungs" | "rulesOfThumb" | "ways"> &
  Partial<Pick<BehaviourTemplate, Exclude<keyof typeof TEMPLATE_DEFAULTS, "ways" | "masteryReason">>> & {
    readonly sure: keyof typeof SURE;
    readonly ways?: readonly WrittenWay[];
    /** A row a rung, in the order of the strands; a level by its place, counted from 0. */
    readonly rows: readonly (readonly number[])[];
    readonly thumb: readonly string[];
  };

/** A template from its short form. */
export function template({ rows, thumb, sure, ways = [], ...written }: Written): BehaviourTemplate {
  const valueAt = (of: Strand, value: number | undefined): StrandValue => {
    const found = of.kind === "levels" ? of.levels[value ?? -1] : value;
    if (found === undefined) throw new RangeError(`${written.key}: ${of.name} has no value ${value}`);
    return found;
  };
  const rungsOf = (strands: readonly Strand[], list: readonly (readonly number[])[]) =>
    list.map((row) => Object.fromEntries(strands.map((of, i) => [of.id, valueAt(of, row[i])])));
  return {
    ...TEMPLATE_DEFAULTS,
    ...SURE[sure],
    ...written,
    rungs: rungsOf(written.strands, rows),
    ways: ways.map(({ strands, rows: own, changes = {}, ...way }) => ({
      ...way,
      changes: {
        ...changes,
        ...(strands === undefined ? {} : { strands }),
        ...(own === undefined ? {} : { rungs: rungsOf(strands ?? written.strands, own) }),
      },
    })),
    rulesOfThumb: thumb.map((text) => ({ text, basis: "common practice" })),
  };
}
