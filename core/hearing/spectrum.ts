import FFT from "fft.js";
import { BANDS } from "./template";

/** Samples of one look at the sound, a power of two: 11 ms at 48 kHz. */
export const FRAME_SAMPLES = 512;
/** Milliseconds from one look to the next: the moment of a sound is known to about this. */
export const HOP_MS = 5;
const LOWEST_HZ = 350;
const HIGHEST_HZ = 14_000;

/** What a band without any power is said to have. */
export const SILENCE_DB = -120;

/** Turns frames of sound into decibels by band. Makes no garbage while it runs: it lives in an audio thread. */
export class BandSpectrum {
  private readonly fft = new FFT(FRAME_SAMPLES);
  private readonly window = Float64Array.from(
    { length: FRAME_SAMPLES },
    (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / (FRAME_SAMPLES - 1)),
  );
  private readonly input = new Array<number>(FRAME_SAMPLES).fill(0);
  private readonly output: number[] = this.fft.createComplexArray();
  /** First bin of each band, and one past the last. */
  private readonly edges: Int32Array;

  /** @param sampleRate in Hz; under 16 kHz the upper bands lie empty. */
  constructor(sampleRate: number) {
    const top = Math.min(HIGHEST_HZ, sampleRate / 2);
    const bins = FRAME_SAMPLES / 2;
    this.edges = Int32Array.from({ length: BANDS + 1 }, (_, i) =>
      Math.min(bins, Math.round((LOWEST_HZ * (top / LOWEST_HZ) ** (i / BANDS) * FRAME_SAMPLES) / sampleRate)),
    );
    // Each band holds at least one bin of its own.
    for (let i = 1; i <= BANDS; i++) this.edges[i] = Math.min(bins, Math.max(this.edges[i] ?? 0, (this.edges[i - 1] ?? 0) + 1));
  }

  /** Decibels of power in each band of the samples from `at` on, into `into`. */
  read(samples: Float32Array, at: number, into: Float32Array): void {
    for (let i = 0; i < FRAME_SAMPLES; i++) this.input[i] = (samples[at + i] ?? 0) * (this.window[i] ?? 0);
    this.fft.realTransform(this.output, this.input);
    for (let band = 0; band < BANDS; band++) {
      let power = 0;
      for (let bin = this.edges[band] ?? 0; bin < (this.edges[band + 1] ?? 0); bin++)
        power += (this.output[2 * bin] ?? 0) ** 2 + (this.output[2 * bin + 1] ?? 0) ** 2;
      into[band] = power <= 0 ? SILENCE_DB : Math.max(SILENCE_DB, 10 * Math.log10(power));
    }
  }
}
