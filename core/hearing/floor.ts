import { HOP_MS, SILENCE_DB } from "./spectrum";
import { BANDS } from "./template";

/** How fast the floor follows what is louder and what is softer, in seconds. */
const RISES_OVER_S = 2;
const FALLS_OVER_S = 0.3;
/** Looks over which it is first learned: a fifth of a second. */
const LEARNS_LOOKS = Math.round(200 / HOP_MS);
/** A look this far over the floor is no noise and lifts it more slowly still. */
const NO_NOISE_DB = 12;

/** What is always there, band by band: slow to rise, quick to fall, so that a short sound stands out of it. */
export class NoiseFloor {
  readonly db = new Float32Array(BANDS);
  private looks = 0;

  /** Whether it knows the noise yet. */
  get known(): boolean {
    return this.looks >= LEARNS_LOOKS;
  }

  /** Takes a look in, after it was held against the floor. A microphone that is not open yet gives silence without any noise: that is no floor. */
  follow(look: Float32Array): void {
    if ((look[0] ?? SILENCE_DB) <= SILENCE_DB) return;
    this.looks++;
    // At first it learns as a mean does.
    if (this.looks <= LEARNS_LOOKS) {
      for (let band = 0; band < BANDS; band++)
        this.db[band] = (this.db[band] ?? 0) + ((look[band] ?? 0) - (this.db[band] ?? 0)) / this.looks;
      return;
    }
    for (let band = 0; band < BANDS; band++) {
      const over = (look[band] ?? 0) - (this.db[band] ?? 0);
      const seconds = over < 0 ? FALLS_OVER_S : over > NO_NOISE_DB ? RISES_OVER_S * 3 : RISES_OVER_S;
      this.db[band] = (this.db[band] ?? 0) + over * Math.min(1, HOP_MS / 1000 / seconds);
    }
  }
}
