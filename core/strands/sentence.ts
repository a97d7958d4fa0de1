import { lightnessSentence, type SentencePart, strandPhrase } from "./phrase";
import type { Strand, StrandKey, StrandValue } from "./strand";

const plain = (text: string): SentencePart => ({ text, strong: false });

/** The order in which a sentence tells its strands: what, how much, how, where, how calm. */
const TELLING_ORDER: readonly StrandKey[] = [
  "form",
  "build",
  "gait",
  "circle",
  "steps",
  "stay",
  "reach",
  "approach",
  "tool",
  "touch-zone",
  "load",
  "own",
  "latency",
  "side",
  "tether",
  "handler-place",
  "handler-motion",
  "company",
  "surroundings",
  "ease",
];

/** What the answer is: how soon it comes is said beside it. */
const ANSWERS: readonly StrandKey[] = ["form", "gait", "steps", "reach"];

/** Phrases that lean on the word before; any other stands behind a comma. */
const LEANS = /^(at|within|with|for|from|of|to|as|on a|on its|on all) /;
/** What nothing leans on: a side, a place, what holds it. */
const STANDS_ALONE: readonly StrandKey[] = ["side", "tether", "handler-place", "handler-motion"];

interface Valued {
  readonly strand: Strand;
  readonly value: StrandValue;
}

/** How soon, in the usual words: "within 10 s" leans on what it is told behind. */
const isSoon = ({ strand }: Valued) => strand.key === "latency" && strand.phrases === undefined;

/** Values in the order they are told, without those that add nothing. */
function inOrder(strands: readonly Strand[], values: Readonly<Record<string, StrandValue>>): Valued[] {
  const answers = strands.some(({ key, id }) => key === "form" && values[id] !== undefined);
  const valued = strands.flatMap((strand) => {
    const value = values[strand.id];
    if (value === undefined || strand.key === "lightness") return [];
    // One step of "steps aside" is that step, and staying for no time is not staying.
    if ((strand.key === "steps" && value === 1 && answers) || (strand.key === "stay" && value === 0)) return [];
    return [{ strand, value }];
  });
  valued.sort((a, b) => TELLING_ORDER.indexOf(a.strand.key) - TELLING_ORDER.indexOf(b.strand.key));
  const soon = valued.find(isSoon);
  if (soon === undefined) return valued;
  // Right behind the answer, so that nobody reads "stays 4 s within 10 s"; with no answer before it, it opens the sentence.
  const rest = valued.filter((one) => one !== soon);
  const behind = rest.findIndex(({ strand }) => !ANSWERS.includes(strand.key) || strand.key === "steps");
  const at = rest[0]?.strand.key === "steps" ? 1 : behind < 0 ? rest.length : behind;
  return [...rest.slice(0, at), soon, ...rest.slice(at)];
}

/**
 * The criterion of a rung as sentences in parts, for example "All four feet
 * on, stays **4 s**, on the short lead, you at the head." How clear the cue may
 * get is a sentence of its own.
 * `values` is keyed by strand id; `phaseLabels` are the cue phases from the lightest.
 * @example criterionParts(strands, { circle: 4 }, ["body", "point", "lead touch"]) // "Goes on a circle of ", "4 m", " radius", "."
 */
export function criterionParts(
  strands: readonly Strand[],
  values: Readonly<Record<string, StrandValue>>,
  phaseLabels: readonly string[],
): SentencePart[] {
  const said: SentencePart[] = [];
  let before: StrandKey | null = null;
  for (const { strand, value } of inOrder(strands, values)) {
    const first = said.length === 0;
    const phrase = strandPhrase(strand, value, first);
    const [head] = phrase;
    if (head === undefined) continue;
    if (first) said.push({ ...head, text: head.text.charAt(0).toUpperCase() + head.text.slice(1) }, ...phrase.slice(1));
    else {
      const leans = LEANS.test(phrase.map(({ text }) => text).join("")) && (before === null || !STANDS_ALONE.includes(before));
      said.push(plain(leans ? " " : ", "), ...phrase);
    }
    before = strand.key;
  }
  const lightness = strands.find(({ key, id }) => key === "lightness" && values[id] !== undefined);
  const cue = lightness === undefined ? [] : [lightnessSentence(values[lightness.id] ?? 1, phaseLabels)];
  if (said.length === 0) return [plain(["Any answer.", ...cue].join(" "))];
  return [...said, plain([".", ...cue].join(" "))];
}

/** The criterion as one text. @example criterionSentence(strands, { steps: 1 }, ["body", "point", "line"]) // "Takes 1 step." */
export function criterionSentence(
  strands: readonly Strand[],
  values: Readonly<Record<string, StrandValue>>,
  phaseLabels: readonly string[],
): string {
  return criterionParts(strands, values, phaseLabels)
    .map((part) => part.text)
    .join("");
}
