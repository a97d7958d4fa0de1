import { type CircleCall, type CircleSound, renderTrack, type TimedCall } from "@/core/circle";

/** No track is longer: what a session on the circle never is. */
const LONGEST_SECONDS = 2 * 3600;
/** Farther apart than this the track is put where the clock is. */
const APART_SECONDS = 0.35;

/**
 * Plays a plan's sounds as one piece: the browser goes on playing it on a
 * locked phone, where it lets no timer run. Sounds are nothing the clock goes
 * by: where the two part, the track is moved.
 */
export class TrackPlayer {
  private url: string | null = null;
  private key = "";

  constructor(private readonly audio: HTMLAudioElement) {}

  /** Makes the track of these calls, where it is not the one there is. */
  load(calls: readonly TimedCall[], sounds: Readonly<Record<CircleCall, CircleSound>>, seconds: number): void {
    const key = JSON.stringify([calls, sounds, seconds]);
    if (key === this.key) return;
    this.key = key;
    const before = this.url;
    const file = renderTrack(calls, sounds, Math.min(LONGEST_SECONDS, seconds + 2));
    this.url = URL.createObjectURL(new Blob([file], { type: "audio/wav" }));
    const playing = !this.audio.paused;
    this.audio.src = this.url;
    if (playing) void this.audio.play().catch(() => undefined);
    if (before !== null) URL.revokeObjectURL(before);
  }

  /** Goes on from a moment of work; called again and again while it runs. */
  run(workedSeconds: number): void {
    const { audio } = this;
    if (this.url === null || (Number.isFinite(audio.duration) && workedSeconds >= audio.duration)) return;
    if (Math.abs(audio.currentTime - workedSeconds) > APART_SECONDS) audio.currentTime = workedSeconds;
    // A browser that lets no page sound before it was touched says no; the next press asks again.
    if (audio.paused) void audio.play().catch(() => undefined);
  }

  hush(): void {
    this.audio.pause();
  }

  close(): void {
    this.audio.pause();
    if (this.url !== null) URL.revokeObjectURL(this.url);
    this.url = null;
    this.key = "";
  }
}
