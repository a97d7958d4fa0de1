import type { CuePhase } from "./phase";

export const MOVEMENTS = [
  "forward",
  "back",
  "left or right",
  "turn the hind end",
  "turn the front end",
  "go away",
  "come",
  "stand",
  "faster",
  "slower",
  "head down",
  "lift a foot",
  "other",
] as const;
/** What a cue asks the body to do: so much is needed to see that two cues contradict. */
export type Movement = (typeof MOVEMENTS)[number];

/** Movements that cannot both be meant by one cue. */
const OPPOSITE: readonly (readonly [Movement, Movement])[] = [
  ["forward", "back"],
  ["go away", "come"],
  ["faster", "slower"],
  ["forward", "stand"],
  ["back", "stand"],
  ["faster", "stand"],
  ["go away", "stand"],
  ["come", "back"],
];

/** What one behaviour of a horse is asked by. */
export interface CueOfBehaviour {
  readonly behaviour: string;
  /** The finished cue in words. */
  readonly cue: string;
  readonly movement: Movement;
  readonly phases: readonly Pick<CuePhase, "label" | "kind">[];
}

export interface CueClash {
  readonly kind: "same" | "contradicts" | "sounds alike";
  readonly with: string;
  readonly cue: string;
  readonly sentence: string;
}

/** Case, marks and spaces do not make another cue. */
const plainWords = (text: string) =>
  text
    .toLowerCase()
    .normalize("NFKD")
    .replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();

/** Whether two spoken words differ by at most one letter: a horse can hardly tell them apart. */
function soundsAlike(a: string, b: string): boolean {
  if (a === b || Math.abs(a.length - b.length) > 1 || Math.min(a.length, b.length) < 2) return false;
  let i = 0;
  while (i < a.length && i < b.length && a[i] === b[i]) i++;
  let end = 0;
  while (end < a.length - i && end < b.length - i && a[a.length - 1 - end] === b[b.length - 1 - end]) end++;
  return Math.max(a.length, b.length) - i - end <= 1;
}

const opposite = (a: Movement, b: Movement) => OPPOSITE.some(([x, y]) => (x === a && y === b) || (x === b && y === a));

/** The lightest ask and the finished cue: what the horse is to answer in the end. */
const finished = ({ cue, phases }: CueOfBehaviour) =>
  [cue, phases[0]?.label ?? ""].map((words) => ({ words, plain: plainWords(words) })).filter(({ plain }) => plain !== "");

/**
 * Checks a behaviour's cue against those of the horse's other behaviours: the
 * same finished cue for two behaviours, any phase of one that is the finished
 * cue or a spoken phase of one that asks the opposite, and spoken words that
 * sound alike.
 * @example cueClashes(one, others) // []
 */
export function cueClashes(one: CueOfBehaviour, others: readonly CueOfBehaviour[]): CueClash[] {
  const clashes: CueClash[] = [];
  const spoken = (of: CueOfBehaviour) =>
    of.phases.filter(({ kind }) => kind === "voice").map(({ label }) => ({ words: label, plain: plainWords(label) }));
  for (const other of others) {
    const against = opposite(one.movement, other.movement);
    const mine = [...finished(one), ...(against ? spoken(one) : [])];
    const theirs = [...finished(other), ...(against ? spoken(other) : [])];
    const same = mine.find(({ plain }) => theirs.some((their) => their.plain === plain));
    if (same !== undefined) {
      clashes.push(
        against
          ? {
              kind: "contradicts",
              with: other.behaviour,
              cue: same.words,
              sentence: `“${same.words}” asks for ${one.movement} here and for ${other.movement} in ${other.behaviour}.`,
            }
          : { kind: "same", with: other.behaviour, cue: same.words, sentence: `“${same.words}” is already the cue of ${other.behaviour}.` },
      );
      continue;
    }
    const alike = spoken(one).find(({ plain }) => spoken(other).some((their) => soundsAlike(plain, their.plain)));
    const twin = alike === undefined ? undefined : spoken(other).find((their) => soundsAlike(alike.plain, their.plain));
    if (alike !== undefined && twin !== undefined)
      clashes.push({
        kind: "sounds alike",
        with: other.behaviour,
        cue: alike.words,
        sentence: `“${alike.words}” sounds much like “${twin.words}” of ${other.behaviour}.`,
      });
  }
  return clashes;
}
