import type { AdviceWord } from "@/core/advice";
import { play, type Tone } from "./feedback";
import { type SoundSettings, soundSettings } from "./settings";

/** Everything that can be told without looking. */
export type Signal =
  | AdviceWord
  | "block end"
  | "side"
  | "gait"
  | "reinforce"
  | "not this one"
  | "tick"
  | "dwell end"
  | "beat"
  | "maximum"
  | "beep"
  | "stands";

const run = (hertz: readonly number[], step = 0.13, seconds = 0.11, loud?: number): Tone[] =>
  hertz.map((h, i) => ({ at: i * step, seconds, hertz: h, ...(loud === undefined ? {} : { loud }) }));

/** A sound of its own for each: told apart by direction and count, not by pitch alone. */
const SOUNDS: Readonly<Record<Signal, readonly Tone[]>> = {
  Stop: run([220, 220, 220, 220], 0.1, 0.09, 0.16),
  Break: run([440, 330], 0.3, 0.28),
  Finish: run([660, 550, 440, 330]),
  "Add a step": run([520, 520, 390, 650]),
  "Go back": run([520, 390]),
  "Change side": run([430, 610, 430]),
  Up: run([440, 550, 660]),
  Repeat: run([500]),
  Start: run([500, 630], 0.22),
  "block end": run([610, 610], 0.2),
  side: run([430, 610]),
  gait: run([480, 480], 0.09, 0.07),
  reinforce: run([880, 1175], 0.08, 0.12),
  "not this one": run([300], 0.1, 0.09),
  tick: run([1500], 0.1, 0.02, 0.025),
  "dwell end": run([1200, 1200], 0.1, 0.04, 0.05),
  beat: run([240], 0.1, 0.05, 0.06),
  maximum: run([300, 300, 300], 0.14, 0.12),
  beep: run([990], 0.1, 0.16),
  stands: run([350, 350], 0.18, 0.14),
};

const SPOKEN: Partial<Record<Signal, string>> = {
  "block end": "block done",
  side: "other side",
  reinforce: "reinforce this one",
  "not this one": "release only",
  maximum: "longest ask",
  stands: "stands in the corner",
};

const FAMILY: Readonly<Record<Signal, keyof SoundSettings>> = {
  Stop: "words",
  Break: "words",
  Finish: "words",
  "Add a step": "words",
  "Go back": "words",
  "Change side": "words",
  Up: "words",
  Repeat: "words",
  Start: "words",
  "block end": "words",
  side: "sides",
  gait: "sides",
  reinforce: "reinforce",
  "not this one": "reinforce",
  tick: "dwell",
  "dwell end": "dwell",
  beat: "dwell",
  maximum: "dwell",
  beep: "words",
  stands: "sides",
};

/** A voice of this device itself: nothing spoken may leave it. */
function localVoice(): SpeechSynthesisVoice | null {
  if (typeof speechSynthesis === "undefined") return null;
  const voices = speechSynthesis.getVoices().filter((voice) => voice.localService);
  return voices.find(({ lang }) => lang.startsWith("en")) ?? voices[0] ?? null;
}

/** Whether this device can speak by itself. */
export const canSpeak = () => localVoice() !== null;

/** Tells something by its sound, or spoken where that is chosen and there is a voice. @returns how it was told. */
export function tell(signal: Signal): "off" | "spoken" | "sound" {
  const settings = soundSettings();
  const outcome = (how: "off" | "spoken" | "sound") => {
    // For the test, and for a helper's screen reader log: what was told last.
    document.documentElement.dataset.told = `${signal}:${how}`;
    return how;
  };
  if (!settings[FAMILY[signal]]) return outcome("off");
  const words = SPOKEN[signal] ?? (FAMILY[signal] === "words" ? signal : undefined);
  const voice = settings.speak && words !== undefined ? localVoice() : null;
  if (voice !== null && words !== undefined) {
    const said = new SpeechSynthesisUtterance(words);
    said.voice = voice;
    speechSynthesis.cancel();
    speechSynthesis.speak(said);
    return outcome("spoken");
  }
  play(SOUNDS[signal]);
  return outcome("sound");
}

/** Every sound of the words is its own; for the test. */
export const soundOf = (signal: Signal): string => SOUNDS[signal].map(({ at, hertz }) => `${at.toFixed(2)}@${hertz}`).join(" ");
