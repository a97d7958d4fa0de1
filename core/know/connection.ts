import { cohenKappa, effectiveLooks, type Interval, type KappaAgreement, leads, scoreInterval } from "../evidence";
import { isOneOf } from "../typed";
import { percentSpan } from "../words";

/** What a horse can go to when it is unsure, or nothing of the kind. */
export const CONNECTION_ANSWERS = ["people", "other horses", "a place", "an object", "a pattern", "nothing in particular"] as const;
export type ConnectionAnswer = (typeof CONNECTION_ANSWERS)[number];

export const CONNECTION_QUESTION = "goes to";
/** Seconds between two beeps. */
export const BEEP_SECONDS = { least: 5, most: 30, usual: 10 } as const;

/** One look at a beep: what the horse was with at that moment. */
export interface Sample {
  readonly beep: number;
  readonly answer: string;
  readonly observer: string;
}

/** One answer's share of the samples, with its 95 % interval. */
export interface SampleShare {
  readonly answer: ConnectionAnswer;
  readonly n: number;
  readonly share: number;
  readonly interval: Interval;
}

/** What an observation came to. */
export interface Connection {
  readonly n: number;
  /** From the largest share down; answers never given are left out. */
  readonly shares: readonly SampleShare[];
  /** Two observers' agreement at the same beeps; null where only one watched. */
  readonly agreement: KappaAgreement | null;
  readonly leading: ConnectionAnswer | null;
  readonly sentence: string;
  readonly teachNext: string;
}

/** What to teach next for each leading answer (common practice, no source). */
const TEACH: Readonly<Record<ConnectionAnswer, string>> = {
  people: "It went to people. Teach it to be at ease while you step away: stand and wait, a metre at a time, before you leave it anywhere.",
  "other horses":
    "It went to other horses. Company away by steps: companion beside, then in sight, then away for a moment, easy work each time.",
  "a place": "It went to a place of its own. Make a second one, a mat or a plate, and be at ease there, before it stands tied anywhere.",
  "an object": "It went to a thing. Use that as the target: let it lead the horse a step, then two, into new places.",
  "a pattern": "It settled in a known pattern. Run that pattern first, then change one piece of it at a time.",
  "nothing in particular":
    "It went to nothing in particular. Give it one thing to come back to: a place where it always rests and is fed or scratched.",
};

/** Fewer looks than this name no leader. */
const LEAST_LOOKS = 10;

const isAnswer = (text: string): text is ConnectionAnswer => isOneOf(CONNECTION_ANSWERS, text);

/** Beeps both of two observers answered, as a square table over the answers. */
function agreementOf(samples: readonly Sample[]): KappaAgreement | null {
  const observers = [...new Set(samples.map((s) => s.observer))].sort();
  const [one, two] = observers;
  if (one === undefined || two === undefined) return null;
  const table = CONNECTION_ANSWERS.map(() => new Array<number>(CONNECTION_ANSWERS.length).fill(0));
  const second = new Map(samples.filter((s) => s.observer === two).map((s) => [s.beep, s.answer]));
  for (const { beep, answer } of samples.filter((s) => s.observer === one)) {
    const other = second.get(beep);
    if (other === undefined || !isAnswer(answer) || !isAnswer(other)) continue;
    const row = table[CONNECTION_ANSWERS.indexOf(answer)] as number[];
    const column = CONNECTION_ANSWERS.indexOf(other);
    row[column] = (row[column] as number) + 1;
  }
  return cohenKappa(table);
}

/**
 * Sums momentary time samples up (for states: Altmann 1974). The shares count
 * the first observer's looks; a second observer gives agreement. Looks close in
 * time resemble each other, so intervals and the lead go by how many independent
 * looks they are worth. One watch says what the horse did in that watch.
 * @example connectionOf([]) // { n: 0, agreement: null, leading: null, … }
 */
export function connectionOf(samples: readonly Sample[]): Connection {
  const observers = [...new Set(samples.map((s) => s.observer))].sort();
  const first = samples.filter((s) => s.observer === observers[0] && isAnswer(s.answer));
  const n = first.length;
  const { effective } = effectiveLooks([...first].sort((a, b) => a.beep - b.beep).map(({ answer }) => answer));
  const shares = CONNECTION_ANSWERS.flatMap((answer): SampleShare[] => {
    const count = first.filter((s) => s.answer === answer).length;
    return count === 0 ? [] : [{ answer, n: count, share: count / n, interval: scoreInterval(count / n, effective) }];
  }).sort((a, b) => b.share - a.share);
  const [top, next] = shares;
  const told = top !== undefined && n >= LEAST_LOOKS && leads(top.share, next?.share ?? 0, effective);
  const leading = told ? top.answer : null;
  const sentence =
    top === undefined
      ? "Nothing watched yet."
      : leading === null
        ? `${top.answer} ${top.n} of ${n}: too few to tell apart yet.`
        : `${leading}: ${top.n} of ${n} looks in one watch: there, ${percentSpan(top.interval)} of the time.`;
  return {
    n,
    shares,
    agreement: agreementOf(samples),
    leading,
    sentence,
    teachNext: leading === null ? "Watch once more before you build on it." : TEACH[leading],
  };
}

/** Agreement in words. @example agreementWords({ kappa: 1, observed: 1, expected: 0.5, n: 4 }) */
export function agreementWords({ kappa, observed, n }: KappaAgreement): string {
  const same = `the same at ${Math.round(observed * n)} of ${n} beeps`;
  if (n < 20) return `Two observers: ${same}; too few to judge.`;
  return kappa === null
    ? `Two observers: ${same}.`
    : `Two observers: ${same}, κ ${kappa.toFixed(2)} (1 is full agreement, 0 no more than chance).`;
}
