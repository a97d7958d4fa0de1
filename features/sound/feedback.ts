import { soundSettings } from "./settings";

let audio: AudioContext | null = null;

/** One tone: when it begins, how long and how high it is. Seconds and hertz. */
export interface Tone {
  readonly at: number;
  readonly seconds: number;
  readonly hertz: number;
  readonly loud?: number;
}

/** Plays tones one after the other; silent where there is no sound. */
export function play(tones: readonly Tone[]): void {
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
