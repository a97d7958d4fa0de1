import { type BehaviourTemplate, type CommonFault, type Prerequisite, TEMPLATE_DEFAULTS } from "@/core/behaviour";
import type { CueKind, CuePhase, PressureProfile } from "@/core/cues";
import { type Strand, type StrandKey, type StrandValue, strandFromCatalogue } from "@/core/strands";

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
export const fault = (sign: string, change: string | number, then: string): CommonFault => ({
  sign,
  change: typeof change === "number" ? { phase: change } : { strand: change },
  then,
});

/** What another behaviour must have reached. */
export const needs = (behaviour: string, values: Readonly<Record<string, StrandValue>> = {}, maxPhase?: number): Prerequisite => ({
  behaviour,
  values,
  ...(maxPhase === undefined ? {} : { maxPhase }),
});

type Written = Omit<BehaviourTemplate, keyof typeof TEMPLATE_DEFAULTS | "rungs" | "rulesOfThumb"> &
  Partial<Pick<BehaviourTemplate, keyof typeof TEMPLATE_DEFAULTS>> & {
    /** A row a rung, in the order of the strands; a level by its place, counted from 0. */
    readonly rows: readonly (readonly number[])[];
    readonly thumb: readonly string[];
  };

/** A template from its short form. */
export function template({ rows, thumb, ...written }: Written): BehaviourTemplate {
  const valueAt = (of: Strand, value: number | undefined): StrandValue => {
    const found = of.kind === "levels" ? of.levels[value ?? -1] : value;
    if (found === undefined) throw new RangeError(`${written.key}: ${of.name} has no value ${value}`);
    return found;
  };
  return {
    ...TEMPLATE_DEFAULTS,
    ...written,
    rungs: rows.map((row) => Object.fromEntries(written.strands.map((of, i) => [of.id, valueAt(of, row[i])]))),
    rulesOfThumb: thumb.map((text) => ({ text, basis: "common practice" })),
  };
}
