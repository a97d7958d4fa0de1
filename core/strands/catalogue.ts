import { EASE_GRADES, type Strand, type StrandKey, type StrandTemplate, type StrandValue } from "./strand";

const number = (
  key: StrandKey,
  name: string,
  unit: string,
  harder: "more" | "less",
  hint: string,
  leastStep: number,
  range: readonly [number, number],
  wholeNumbers = false,
): StrandTemplate => ({ key, name, kind: "number", unit, levels: [], harder, hint, leastStep, range, wholeNumbers });

const levels = (key: StrandKey, name: string, list: readonly string[], hint: string): StrandTemplate => ({
  key,
  name,
  kind: "levels",
  unit: "",
  levels: list,
  harder: "more",
  hint,
  leastStep: 1,
  range: [0, Math.max(0, list.length - 1)],
  wholeNumbers: true,
});

/** Every strand of the domain, with the levels a new ladder starts from. */
export const STRAND_CATALOGUE: readonly StrandTemplate[] = [
  levels(
    "form",
    "form",
    ["any movement", "weight shift", "one foot", "both fronts", "crosses over"],
    "What the answer looks like, from the smallest piece on.",
  ),
  number("steps", "steps", "", "more", "Steps, or repeats in a row.", 1, [1, 200], true),
  number("stay", "stay", "s", "more", "How long the horse stays.", 1, [0, 3600]),
  number("reach", "reach", "m", "more", "Horse to handler.", 0.5, [0, 100]),
  number("approach", "approach", "m", "less", "Horse to the thing it worries about or wants.", 0.5, [0, 100]),
  number("latency", "answers within", "s", "less", "The longest an answer may take and still count.", 0.5, [0.5, 120]),
  levels("gait", "gait", ["stand", "walk", "trot", "canter"], "The order is yours."),
  number("circle", "circle", "m", "more", "Radius. Closer is more draw, wider is more send: say which is harder.", 0.5, [2, 30]),
  levels("side", "side", ["left", "right", "both"], "Which side it is asked on."),
  levels(
    "handler-place",
    "handler",
    ["at the head", "at the shoulder", "at the hip", "2 m off", "behind", "out of sight"],
    "Where you stand. The order is yours.",
  ),
  levels("handler-motion", "handler moves", ["still", "walking", "running", "leaving"], "What you do meanwhile. The order is yours."),
  levels(
    "tether",
    "tether",
    ["short lead", "long line", "draped line", "neck loop", "free in a small pen", "free in the arena", "free in the field"],
    "What holds you together. The order is yours.",
  ),
  levels("build", "build", ["first piece", "second piece", "third piece", "whole"], "Pieces of an obstacle or of kit, added one by one."),
  levels(
    "surroundings",
    "surroundings",
    ["home pen, quiet", "home pen, busy", "other pen", "new place", "wind", "other horses moving"],
    "What goes on around.",
  ),
  levels("touch-zone", "touch", ["shoulder", "neck", "back", "flank", "legs"], "A path over the body. The order is yours."),
  levels("tool", "tool", ["stick", "brush", "rope", "hand", "clipper"], "What touches. The order is yours."),
  levels("company", "company", ["companion beside", "companion in sight", "companion away"], "How near the other horse is."),
  levels("ease", "calm", EASE_GRADES, "The lowest grade that still counts."),
  number("lightness", "cue", "phase", "less", "The clearest phase that still counts.", 1, [1, 5], true),
  number("load", "load", "kg", "more", "Weight carried or drawn.", 0.5, [0, 500]),
  number("own", "own strand", "", "more", "A strand of your own.", 1, [-1_000_000, 1_000_000]),
];

const byKey = new Map(STRAND_CATALOGUE.map((template) => [template.key, template]));

/** The catalogue entry a strand was made from. @example templateOf("side") // { key: "side", name: "side", kind: "levels", … } */
export function templateOf(key: StrandKey): StrandTemplate {
  const template = byKey.get(key);
  if (template === undefined) throw new RangeError(`No strand is called ${key}`);
  return template;
}

/** A ladder's own copy of a catalogue strand. @example strandFromCatalogue("load", "s") // { id: "s", key: "load", name: "load", … } */
export function strandFromCatalogue(key: StrandKey, id: string): Strand {
  const { name, kind, unit, levels: list, harder } = templateOf(key);
  return { id, key, name, kind, unit, levels: [...list], harder };
}

/** The easiest value a strand can begin with, in its unit. @example startValue(strandFromCatalogue("stay", "stay")) // 1 */
export function startValue(strand: Strand): StrandValue {
  if (strand.kind === "levels") return strand.key === "ease" ? (strand.levels[2] ?? "") : (strand.levels[0] ?? "");
  const template = templateOf(strand.key);
  const easy: Partial<Record<StrandKey, number>> = {
    steps: 1,
    stay: 1,
    reach: 1,
    approach: 4,
    latency: 10,
    circle: 4,
    lightness: 4,
    load: 1,
  };
  return easy[strand.key] ?? template.leastStep;
}
