let audio: AudioContext | null = null;

/** A short click under the finger: by vibration where there is one, by sound everywhere. */
export function click(kind: "press" | "refuse" = "press"): void {
  // After the handler, so that making a sound never delays the frame that shows the press.
  setTimeout(() => sound(kind), 0);
}

function sound(kind: "press" | "refuse"): void {
  if (typeof navigator.vibrate === "function") navigator.vibrate(kind === "press" ? 12 : [20, 40, 20]);
  try {
    audio ??= new AudioContext();
    const tone = audio.createOscillator();
    const gain = audio.createGain();
    tone.frequency.value = kind === "press" ? 660 : 180;
    gain.gain.setValueAtTime(0.08, audio.currentTime);
    gain.gain.exponentialRampToValueAtTime(0.0001, audio.currentTime + 0.06);
    tone.connect(gain).connect(audio.destination);
    tone.start();
    tone.stop(audio.currentTime + 0.07);
  } catch {
    // No sound here; the pad still shows the press.
  }
}
