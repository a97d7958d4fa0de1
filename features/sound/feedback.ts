import { soundSettings } from "./settings";

let audio: AudioContext | null = null;

/** One tone: when it begins, how long and how high it is. Seconds and hertz. */
export interface Tone {
  readonly at: number;
  readonly seconds: number;
  readonly hertz: number;
  readonly loud?: number;
}

/** Tones from this height on might be taken for a tongue click by a phone that listens; the ones below never are (core/hearing's test). */
const LIKE_A_MARKER_HERTZ = 800;
/** A room and a loudspeaker make a tone a little longer, in milliseconds. */
const RINGS_ON_MS = 80;

/** When the device's own high tones sound, on the page's clock; the last few. */
let ownSounds: readonly { readonly fromMs: number; readonly toMs: number }[] = [];

/** Whether the device was making a sound itself that could be taken for a marker. @param atMs on the page's clock. */
export const wasOwnSound = (atMs: number): boolean => ownSounds.some(({ fromMs, toMs }) => fromMs <= atMs && atMs <= toMs);

/** Plays tones one after the other; silent where there is no sound. */
export function play(tones: readonly Tone[]): void {
  const nowMs = performance.now();
  const high = tones.filter(({ hertz }) => hertz >= LIKE_A_MARKER_HERTZ);
  ownSounds = [
    ...ownSounds.slice(-8),
    ...high.map(({ at, seconds }) => ({ fromMs: nowMs + at * 1000 - 20, toMs: nowMs + (at + seconds) * 1000 + RINGS_ON_MS })),
  ];
  try {
    audio ??= new AudioContext();
    for (const { at, seconds, hertz, loud = 0.08 } of tones) {
      const begin = audio.currentTime + at;
      const tone = audio.createOscillator();
      const gain = audio.createGain();
      tone.frequency.value = hertz;
      gain.gain.setValueAtTime(loud, begin);
      gain.gain.exponentialRampToValueAtTime(0.0001, begin + seconds);
      tone.connect(gain).connect(audio.destination);
      tone.start(begin);
      tone.stop(begin + seconds + 0.01);
    }
  } catch {
    // No sound here; the screen still shows it.
  }
}

/** A short click under the finger: by vibration where there is one, by sound everywhere. */
export function click(kind: "press" | "refuse" = "press"): void {
  // After the handler, so that making a sound never delays the frame that shows the press.
  setTimeout(() => {
    if (typeof navigator.vibrate === "function") navigator.vibrate(kind === "press" ? 12 : [20, 40, 20]);
    if (soundSettings().press || kind === "refuse") play([{ at: 0, seconds: 0.06, hertz: kind === "press" ? 660 : 180 }]);
  }, 0);
}
