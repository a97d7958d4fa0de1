import { NoiseFloor } from "./floor";
import { BandSpectrum, FRAME_SAMPLES, HOP_MS } from "./spectrum";
import { BANDS, LEAD_LOOKS, type MarkTemplate } from "./template";

/** A marker that was heard. */
export interface HeardMark {
  /** Samples from the first one pushed to its onset. */
  readonly atSample: number;
  /** Normalised correlation with what was taught, up to 1. */
  readonly alike: number;
}

/** A sound is looked at where its loudest band stands this far over the floor, in decibels. */
const ONSET_DB = 8;
/** Power is compressed by this root: loud bands still lead, since noise drowns the soft ones first. */
const COMPRESSED = 0.3;
/** Of the floor so many times are taken off: noise swells. */
const FLOOR_TIMES = 2;
/** Two marks are never nearer to one another. */
export const REFRACTORY_MS = 350;

/** What of a look stands out of the floor, compressed. @returns how far its loudest band stands over it, in decibels. */
function overFloor(look: Float32Array, floor: Float32Array, into: Float32Array): number {
  let most = 0;
  for (let band = 0; band < BANDS; band++) {
    const db = look[band] ?? 0;
    const floorDb = floor[band] ?? 0;
    most = Math.max(most, db - floorDb);
    into[band] = Math.max(0, 10 ** (db / 10) - FLOOR_TIMES * 10 ** (floorDb / 10)) ** COMPRESSED;
  }
  return most;
}

/** Makes a patch of mean 0 and length 1; null where nothing in it stands out. @example normalised(patch) */
export function normalised(patch: ArrayLike<number>): Float32Array | null {
  let mean = 0;
  for (let i = 0; i < patch.length; i++) mean += (patch[i] ?? 0) / patch.length;
  let squares = 0;
  for (let i = 0; i < patch.length; i++) squares += ((patch[i] ?? 0) - mean) ** 2;
  const length = Math.sqrt(squares);
  return length < 1e-6 ? null : Float32Array.from(patch, (value) => (value - mean) / length);
}

/** Looks at sound as it comes, keeps the last ones, and tells an onset: what both hearing and teaching go by. */
export class Looks {
  private readonly spectrum: BandSpectrum;
  private readonly floor = new NoiseFloor();
  private readonly look = new Float32Array(BANDS);
  /** The last three looks as they stand out, newest last: a kept look is drawn from all of them, so that half a look's shift matters little. */
  private readonly raw = [new Float32Array(BANDS), new Float32Array(BANDS), new Float32Array(BANDS)] as const;
  private readonly waiting: Float32Array;
  private filled = 0;
  private readonly hop: number;
  /** What stands out of the floor, the newest last, a look behind. */
  readonly kept: Float32Array;
  /** Decibels of the loudest band over the floor, look by look. */
  readonly loudness: Float32Array;
  /** Looks taken so far. */
  count = 0;

  constructor(
    sampleRate: number,
    readonly capacity: number,
  ) {
    this.spectrum = new BandSpectrum(sampleRate);
    this.hop = Math.round((sampleRate * HOP_MS) / 1000);
    this.waiting = new Float32Array(FRAME_SAMPLES + this.hop * 64);
    this.kept = new Float32Array(capacity * BANDS);
    this.loudness = new Float32Array(capacity);
  }

  /** Samples from the first one to the end of a kept look: an onset shows as soon as the end of a look reaches it. */
  sampleOf(look: number): number {
    return Math.max(0, (look - 1) * this.hop + FRAME_SAMPLES);
  }

  /** Takes sound in and calls back after each look. */
  push(samples: Float32Array, each: () => void): void {
    let from = 0;
    while (from < samples.length) {
      const room = Math.min(this.waiting.length - this.filled, samples.length - from);
      this.waiting.set(samples.subarray(from, from + room), this.filled);
      this.filled += room;
      from += room;
      let at = 0;
      while (this.filled - at >= FRAME_SAMPLES) {
        this.take(at);
        each();
        at += this.hop;
      }
      this.waiting.copyWithin(0, at, this.filled);
      this.filled -= at;
    }
  }

  private take(at: number): void {
    this.spectrum.read(this.waiting, at, this.look);
    this.kept.copyWithin(0, BANDS);
    this.loudness.copyWithin(0, 1);
    const [oldest, middle, newest] = this.raw;
    oldest.set(middle);
    middle.set(newest);
    const over = overFloor(this.look, this.floor.db, newest);
    this.loudness[this.capacity - 1] = this.floor.known ? over : 0;
    if (!this.floor.known) newest.fill(0);
    const last = (this.capacity - 1) * BANDS;
    for (let band = 0; band < BANDS; band++)
      this.kept[last + band] = ((oldest[band] ?? 0) + 2 * (middle[band] ?? 0) + (newest[band] ?? 0)) / 4;
    this.floor.follow(this.look);
    this.count++;
  }
}

/**
 * Hears a person's own marker: a spectral template of what was taught, slid
 * over what stands out of the noise and held against it by normalised
 * correlation. A peak over the threshold is a mark; after one nothing is heard
 * for 350 ms. Nothing of the sound is kept beyond the template's length.
 * @example new MarkListener(template, 48_000).push(samples) // [{ atSample: 48_210, alike: 0.93 }]
 */
export class MarkListener {
  private readonly looks: Looks;
  private readonly best = { alike: 0, look: -1 };
  private quietUntilLook = 0;

  constructor(
    private readonly template: MarkTemplate,
    sampleRate: number,
  ) {
    this.looks = new Looks(sampleRate, template.looks);
  }

  private correlation(): number {
    const { kept } = this.looks;
    const { patch } = this.template;
    let mean = 0;
    for (let i = 0; i < kept.length; i++) mean += kept[i] ?? 0;
    mean /= kept.length;
    let squares = 0;
    let product = 0;
    for (let i = 0; i < kept.length; i++) {
      const off = (kept[i] ?? 0) - mean;
      squares += off * off;
      product += off * (patch[i] ?? 0);
    }
    return squares < 1e-9 ? 0 : product / Math.sqrt(squares);
  }

  /** Takes sound in, in pieces of any size. @returns the marks that were heard in it, at most 20 ms after their last look. */
  push(samples: Float32Array): HeardMark[] {
    const heard: HeardMark[] = [];
    const { looks, template, best } = this;
    looks.push(samples, () => {
      const { count } = looks;
      if (count < template.looks) return;
      const loud = looks.loudness.reduce((most, one) => Math.max(most, one), 0) >= ONSET_DB;
      const alike = loud && count >= this.quietUntilLook ? this.correlation() : 0;
      if (alike >= template.threshold && alike > best.alike) {
        best.alike = alike;
        best.look = count - template.looks;
      } else if (best.look >= 0 && (alike < best.alike - 0.05 || count - template.looks - best.look >= 3)) {
        heard.push({ atSample: looks.sampleOf(best.look + LEAD_LOOKS), alike: best.alike });
        this.quietUntilLook = count + Math.round(REFRACTORY_MS / HOP_MS) - 3;
        best.alike = 0;
        best.look = -1;
      }
    });
    return heard;
  }
}
