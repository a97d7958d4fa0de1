import { placeIn } from "../typed";
import { EASE_GRADES, type Strand, type StrandKey, type StrandValue } from "./strand";

/** A piece of the criterion sentence; the numbers that decide are strong. */
export interface SentencePart {
  readonly text: string;
  readonly strong: boolean;
}

/** Where in a phrase of a strand's own its value stands; as a key, the phrase of every value that has none of its own. */
export const VALUE_HERE = "{}";

const plain = (text: string): SentencePart => ({ text, strong: false });
const strong = (text: string): SentencePart => ({ text, strong: true });

/** A number with at most two decimals and no trailing zeros. @example shortNumber(1) // "1" */
export function shortNumber(value: number): string {
  return String(Math.round(value * 100) / 100);
}

/** An amount as it is said: "4 s", "2 min", "1.5 m", "3". */
function amount(value: StrandValue, unit: string): string {
  if (typeof value === "string") return value;
  if (unit === "s" && value >= 60 && value % 60 === 0) return `${shortNumber(value / 60)} min`;
  return `${shortNumber(value)}${unit === "" ? "" : ` ${unit}`}`;
}

/** A pattern with the value in its place; a number decides, so it is strong. */
function filled(pattern: string, value: StrandValue, said: string): SentencePart[] {
  const [before = "", ...after] = pattern.split(VALUE_HERE);
  const parts =
    after.length === 0 ? [plain(before)] : [plain(before), (typeof value === "number" ? strong : plain)(said), plain(after.join(said))];
  return parts.filter(({ text }) => text !== "");
}

/** "crossing steps" of one: "crossing step". */
const counted = (name: string, value: StrandValue) => (value === 1 ? name.replace(/\bsteps\b/, "step") : name);

/** The words of a value; a level may be called anything, also what every object has by birth. */
const wordsOf = (words: Readonly<Record<string, string>> | undefined, value: string): string | undefined =>
  words !== undefined && Object.hasOwn(words, value) ? words[value] : undefined;

/** Where nothing but the catalogue's own levels says how a value stands in a sentence. */
const CATALOGUE_WORDS: Partial<Record<StrandKey, Readonly<Record<string, string>>>> = {
  gait: { stand: "standing still" },
  side: { both: "on both sides" },
  "handler-motion": { still: "while you stand still", walking: "while you walk", running: "while you run", leaving: "while you leave" },
  "touch-zone": { legs: "touched on the legs" },
  tool: { hand: "with your hand" },
  surroundings: {
    "home pen, quiet": "in its own pen, quiet",
    "home pen, busy": "in its own pen, busy",
    "other pen": "in another pen",
    "new place": "in a new place",
    wind: "in wind",
    "other horses moving": "with other horses moving",
  },
  company: {
    "companion beside": "companion beside it",
  },
};

/** What each kind of strand says where the strand has no words of its own. `first`: it opens the sentence, so it needs its verb. */
const BY_KIND: Readonly<Record<StrandKey, (value: StrandValue, strand: Strand, first: boolean) => string>> = {
  form: String,
  build: String,
  company: String,
  surroundings: String,
  steps: (value, { name }, first) => `${first ? "takes " : ""}${VALUE_HERE} ${counted(name, value)}`,
  stay: () => `stays ${VALUE_HERE}`,
  reach: (_, __, first) => `${first ? "works " : ""}${VALUE_HERE} from you`,
  approach: (_, __, first) => (first ? `comes within ${VALUE_HERE}` : `${VALUE_HERE} away`),
  latency: (_, __, first) => `${first ? "answers " : ""}within ${VALUE_HERE}`,
  gait: (value, _, first) => (/\bat\b/.test(String(value)) ? String(value) : `${first ? "goes " : ""}at ${value}`),
  circle: (_, __, first) => `${first ? "goes " : ""}on a circle of ${VALUE_HERE} radius`,
  side: (value) => `on the ${value}`,
  // A place that says who stands there names nobody a second time.
  "handler-place": (value) => (/^(you|it)\b/.test(String(value)) ? String(value) : `you ${value}`),
  "handler-motion": (value) => `you ${value}`,
  tether: (value) => (/^free|\b(in|over)\b/.test(String(value)) ? String(value) : `on the ${value}`),
  "touch-zone": (value) => `touched on the ${value}`,
  tool: (value) => `with the ${value}`,
  load: () => `with ${VALUE_HERE}`,
  ease: (value) => {
    const grade = placeIn(EASE_GRADES, String(value));
    if (grade === 0) return "";
    return grade >= EASE_GRADES.indexOf("soft") ? String(value) : `no worse than ${value}`;
  },
  // A sentence of its own, after the others.
  lightness: () => "",
  own: (value, { name }) => (typeof value === "number" ? `${name} ${VALUE_HERE}` : `${value} (${name})`),
};

/**
 * What one strand adds to the sentence, in parts; empty where it says nothing.
 * A strand's own words come first, then the catalogue's, then its kind's.
 * @param first whether it opens the sentence
 * @example strandPhrase(strandFromCatalogue("stay", "stay"), 4, false) // "stays " and a strong "4 s"
 */
export function strandPhrase(strand: Strand, value: StrandValue, first: boolean): SentencePart[] {
  const ownWords = wordsOf(strand.phrases, String(value)) ?? wordsOf(strand.phrases, VALUE_HERE);
  const pattern = ownWords ?? wordsOf(CATALOGUE_WORDS[strand.key], String(value)) ?? BY_KIND[strand.key](value, strand, first);
  // One of something is one: "1 crossing step" also in words of the strand's own.
  return filled(ownWords === undefined ? pattern : counted(pattern, value), value, amount(value, strand.unit));
}

/**
 * How clear the cue may get, as a sentence of its own; empty where any phase counts.
 * @param phaseLabels the cue phases from the lightest
 * @example lightnessSentence(1, ["raised palm", "waved line"]) // "Use only “raised palm”."
 */
export function lightnessSentence(value: StrandValue, phaseLabels: readonly string[]): string {
  const label = phaseLabels[Number(value) - 1] ?? `phase ${value}`;
  return value === 1 ? `Use only “${label}”.` : `Use no more than “${label}”.`;
}
