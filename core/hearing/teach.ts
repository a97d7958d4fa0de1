import { Looks, normalised } from "./mark-listener";
import { HOP_MS } from "./spectrum";
import { BANDS, LEAD_LOOKS, LONGEST_LOOKS, type MarkTemplate } from "./template";

export const FEWEST_SAMPLES = 6;
export const MOST_SAMPLES = 10;

const SHORTEST_LOOKS = 6;
/** So far under its loudest look a sound has ended, in decibels. */
const ENDS_DB = 20;
/** Quiet that must lie between two sounds, in looks. */
const APART_LOOKS = Math.round(300 / HOP_MS);
/** A taught sound must stand this far out of the noise in its loudest band, in decibels. */
const CLEAR_DB = 22;

/** One sound as it was made while teaching. */
export interface TaughtSound {
  /** Over the floor, look by look, from just before its onset. */
  readonly looks: Float32Array;
  readonly count: number;
  readonly loudest: number;
  /** How many of its looks the sound itself took. */
  readonly length: number;
}

/** Finds sounds one after another in what a person makes while teaching. */
export class TaughtSounds {
  private readonly looks: Looks;
  private since = Number.POSITIVE_INFINITY;

  constructor(sampleRate: number) {
    this.looks = new Looks(sampleRate, LONGEST_LOOKS + LEAD_LOOKS);
  }

  /** Takes sound in. @returns the sounds that are whole in it. */
  push(samples: Float32Array): TaughtSound[] {
    const found: TaughtSound[] = [];
    const { looks } = this;
    looks.push(samples, () => {
      const now = looks.loudness[looks.capacity - 1] ?? 0;
      if (this.since === Number.POSITIVE_INFINITY) {
        // The first half second only learns the noise.
        if (looks.count * HOP_MS > 500 && now >= CLEAR_DB) this.since = 0;
        return;
      }
      this.since++;
      if (this.since === LONGEST_LOOKS - 1) found.push(this.cut());
      if (this.since >= LONGEST_LOOKS + APART_LOOKS) this.since = Number.POSITIVE_INFINITY;
    });
    return found;
  }

  private cut(): TaughtSound {
    const { kept, loudness, capacity } = this.looks;
    const loudest = loudness.reduce((most, one) => Math.max(most, one), 0);
    let length = SHORTEST_LOOKS;
    for (let i = LEAD_LOOKS; i < capacity; i++) if ((loudness[i] ?? 0) >= loudest - ENDS_DB) length = i - LEAD_LOOKS + 1;
    return { looks: Float32Array.from(kept), count: capacity, loudest, length: Math.max(SHORTEST_LOOKS, length) };
  }
}

/** How well a marker was taught. */
export interface Taught {
  readonly template: MarkTemplate;
  readonly samples: number;
  /** The least alike of the samples to all the others, and the middle one. */
  readonly least: number;
  readonly middle: number;
  readonly quality: "good" | "fair" | "poor";
  readonly sentence: string;
}

const meanOf = (patches: readonly Float32Array[]): Float32Array => {
  const mean = new Float32Array(patches[0]?.length ?? 0);
  for (const patch of patches) for (let i = 0; i < mean.length; i++) mean[i] = (mean[i] ?? 0) + (patch[i] ?? 0) / patches.length;
  return mean;
};

const dot = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += (a[i] ?? 0) * (b[i] ?? 0);
  return sum;
};

/** The lowest and highest the threshold is set: under it much is alike, over it hardly anything. */
const LEAST_THRESHOLD = 0.6;
const MOST_THRESHOLD = 0.72;
/** How far under the least alike sample the threshold lies: the pen is noisier than where it was taught. */
const MARGIN = 0.2;

/** A sample less alike than this to all the others is something else; so many may be left out. */
const NOT_ALIKE = 0.6;
const MOST_LEFT_OUT = 2;

/** A sound this much softer than the loudest is none of the samples, in decibels. */
const SOFTER_DB = 25;

/** How alike each patch is to the mean of the others. */
const likeness = (patches: readonly Float32Array[]): number[] =>
  patches.map((patch, i) => {
    const others = normalised(meanOf(patches.filter((_, j) => j !== i)));
    return others === null ? 0 : dot(patch, others);
  });

/**
 * Makes a template of six to ten sounds: the mean of them, each as loud as the
 * next, over the middle of their lengths. How alike each is to the mean of the
 * others says how well it was taught and where the threshold lies.
 * @returns null under six sounds, or where nothing in them is the same.
 * @example teachMark(given) // { samples: 8, quality: "good", … }
 */
export function teachMark(given: readonly TaughtSound[]): Taught | null {
  if (given.length < FEWEST_SAMPLES) return null;
  // What is far softer than the loudest was no marker.
  const loudest = Math.max(...given.map((sound) => sound.loudest));
  const sounds = given.filter((sound) => sound.loudest >= loudest - SOFTER_DB);
  if (sounds.length < FEWEST_SAMPLES) return null;
  const lengths = sounds.map(({ length }) => length).sort((a, b) => a - b);
  const looks = Math.min(LONGEST_LOOKS, (lengths[lengths.length >> 1] ?? SHORTEST_LOOKS) + LEAD_LOOKS);
  const all = sounds.flatMap((sound) => normalised(sound.looks.subarray(0, looks * BANDS)) ?? []);
  if (all.length < FEWEST_SAMPLES) return null;
  // A cough among the samples is none of them: one or two that are like none of the others are left out.
  const patches = [...all];
  while (all.length - patches.length < MOST_LEFT_OUT && patches.length > FEWEST_SAMPLES - 1) {
    const each = likeness(patches);
    const worst = each.indexOf(Math.min(...each));
    if ((each[worst] ?? 1) >= NOT_ALIKE) break;
    patches.splice(worst, 1);
  }
  const leftOut = all.length - patches.length;
  const alike = likeness(patches).sort((a, b) => a - b);
  const least = alike[0] ?? 0;
  const middle = alike[alike.length >> 1] ?? 0;
  const patch = normalised(meanOf(patches));
  if (patch === null) return null;
  const quality = least >= 0.85 ? "good" : least >= 0.72 ? "fair" : "poor";
  const threshold = Math.min(MOST_THRESHOLD, Math.max(LEAST_THRESHOLD, least - MARGIN));
  const words = {
    good: "the samples are alike; it should be told from the rest",
    fair: "the samples differ a little; teach it again where it is quiet, or expect some misses",
    poor: "the samples are not alike; teach it again, one clear sound at a time",
  } as const;
  return {
    template: { looks, patch: Array.from(patch, (value) => Math.round(value * 1e5) / 1e5), threshold },
    samples: patches.length,
    least,
    middle,
    quality,
    sentence: `${patches.length} samples, ${quality}: ${words[quality]}${leftOut === 0 ? "" : ` (${leftOut} like none of the others left out)`}.`,
  };
}
