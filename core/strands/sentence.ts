import { placeIn } from "../typed";
import { EASE_GRADES, type Strand, type StrandKey, type StrandValue } from "./strand";

/** A piece of the criterion sentence; the numbers that decide are strong. */
export interface SentencePart {
  readonly text: string;
  readonly strong: boolean;
}

interface Valued {
  readonly strand: Strand;
  readonly value: StrandValue;
}

const plain = (text: string): SentencePart => ({ text, strong: false });
const strong = (text: string): SentencePart => ({ text, strong: true });

/** A number with at most two decimals and no trailing zeros. @example shortNumber(1) // "1" */
export function shortNumber(value: number): string {
  return String(Math.round(value * 100) / 100);
}

const withUnit = (value: StrandValue, unit: string) =>
  strong(`${typeof value === "number" ? shortNumber(value) : value}${unit === "" ? "" : ` ${unit}`}`);

/** The order in which a sentence tells its strands: what, how much, how, where, how calm. */
const TELLING_ORDER: readonly StrandKey[] = [
  "form",
  "build",
  "steps",
  "stay",
  "gait",
  "circle",
  "reach",
  "approach",
  "touch-zone",
  "tool",
  "load",
  "own",
  "lightness",
  "latency",
  "side",
  "handler-place",
  "handler-motion",
  "tether",
  "company",
  "surroundings",
  "ease",
];

function phrase({ strand, value }: Valued, phaseLabels: readonly string[]): SentencePart[] {
  const words = String(value);
  switch (strand.key) {
    case "steps":
      return [withUnit(value, value === 1 ? "step" : strand.name)];
    case "stay":
      return value === 0 ? [] : [plain("stays "), withUnit(value, "s")];
    case "reach":
      return [withUnit(value, "m"), plain(" from the handler")];
    case "approach":
      return [plain("to within "), withUnit(value, "m")];
    case "latency":
      return [plain("within "), withUnit(value, "s")];
    case "gait":
      return [plain(value === "stand" ? "standing" : words.startsWith("at ") ? words : `at ${words}`)];
    case "circle":
      return [plain("on a circle of "), withUnit(value, "m"), plain(" radius")];
    case "side":
      return [plain(value === "both" ? "both sides" : `${words} side`)];
    case "handler-place":
      // A place that says who stands there names nobody a second time.
      return [plain(/^(you|it)\b/.test(words) ? words : `handler ${words}`)];
    case "handler-motion":
      return [plain(`handler ${words === "still" ? "standing still" : words}`)];
    case "tether":
      return [plain(words.startsWith("free") ? words : `on the ${words}`)];
    case "touch-zone":
      return [plain("touched on the "), plain(words)];
    case "tool":
      return [plain(`with the ${words}`)];
    case "load":
      return [plain("with "), withUnit(value, "kg")];
    case "ease": {
      const grade = placeIn(EASE_GRADES, words);
      if (grade === 0) return [];
      return [plain(grade === EASE_GRADES.length - 1 ? words : `${words} or softer`)];
    }
    case "lightness": {
      const label = phaseLabels[Number(value) - 1] ?? `phase ${words}`;
      return value === 1 ? [plain(`${label} only`)] : [plain(`${label} or lighter`)];
    }
    case "own":
      return strand.kind === "levels"
        ? [plain(`${strand.name}: `), strong(words)]
        : [plain(`${strand.name} `), withUnit(value, strand.unit)];
    case "form":
    case "build":
    case "company":
    case "surroundings":
      return [plain(words)];
  }
}

/**
 * The criterion of a rung as a sentence in parts, for example "All four feet
 * on, stays **4 s**, handler at the head, on the short lead."
 * `values` is keyed by strand id; `phaseLabels` are the cue phases from the lightest.
 * @example criterionParts(strands, { circle: 4 }, ["body", "point", "lead touch"]) // 4 of them
 */
export function criterionParts(
  strands: readonly Strand[],
  values: Readonly<Record<string, StrandValue>>,
  phaseLabels: readonly string[],
): SentencePart[] {
  const valued: Valued[] = [];
  for (const strand of strands) {
    const value = values[strand.id];
    if (value !== undefined) valued.push({ strand, value });
  }
  valued.sort((a, b) => TELLING_ORDER.indexOf(a.strand.key) - TELLING_ORDER.indexOf(b.strand.key));
  const phrases = valued.map((v) => phrase(v, phaseLabels)).filter((parts) => parts.length > 0);
  if (phrases.length === 0) return [plain("Any answer.")];
  const parts = phrases.flatMap((p, i) => (i === 0 ? p : [plain(", "), ...p]));
  const first = parts[0] as SentencePart;
  const head = { ...first, text: first.text.charAt(0).toUpperCase() + first.text.slice(1) };
  return [head, ...parts.slice(1), plain(".")];
}

/** The criterion sentence as one text. @example criterionSentence(strands, { steps: 1 }, ["body", "point", "line"]) // "1 step." */
export function criterionSentence(
  strands: readonly Strand[],
  values: Readonly<Record<string, StrandValue>>,
  phaseLabels: readonly string[],
): string {
  return criterionParts(strands, values, phaseLabels)
    .map((part) => part.text)
    .join("");
}
