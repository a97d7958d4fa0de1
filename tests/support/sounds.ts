import { type Chance, drawExponential, drawNormal } from "@/core/chance";

export const SAMPLE_RATE = 48_000;

/** Kinds of marker, made, none recorded. */
export const MARKERS = ["clicker", "tongue", "whistle", "word"] as const;
export type Marker = (typeof MARKERS)[number];

const seconds = (s: number) => Math.round(s * SAMPLE_RATE);

/** Adds a damped tone. Frequencies in Hz, times in seconds, loudness as a peak. */
function ring(into: Float32Array, at: number, hz: number, decay: number, loud: number): void {
  for (let i = 0; i < seconds(decay * 6) && at + i < into.length; i++)
    into[at + i] = (into[at + i] ?? 0) + loud * Math.exp(-i / SAMPLE_RATE / decay) * Math.sin((2 * Math.PI * hz * i) / SAMPLE_RATE);
}

/** Adds a tone that glides, with a soft beginning and end. */
function glide(into: Float32Array, at: number, from: number, to: number, lasts: number, loud: number): void {
  let turn = 0;
  const n = seconds(lasts);
  for (let i = 0; i < n && at + i < into.length; i++) {
    turn += (2 * Math.PI * (from + ((to - from) * i) / n)) / SAMPLE_RATE;
    const edge = Math.min(1, i / seconds(0.012), (n - i) / seconds(0.02));
    into[at + i] = (into[at + i] ?? 0) + loud * edge * Math.sin(turn);
  }
}

/** Adds one marker at a sample, a little different each time as a person's are. */
export function addMarker(into: Float32Array, at: number, marker: Marker, loud: number, chance: Chance): void {
  const bit = (spread: number) => 1 + drawNormal(chance, 0, spread);
  if (marker === "clicker") {
    // Pressed and let go: two short metallic rings.
    const apart = seconds(0.055 * bit(0.06));
    for (const [hz, decay, share] of [
      [2650, 0.006, 1],
      [4900, 0.004, 0.7],
      [7600, 0.003, 0.5],
    ] as const) {
      ring(into, at, hz * bit(0.004), decay, loud * share * bit(0.08));
      ring(into, at + apart, hz * 1.07 * bit(0.004), decay, loud * share * 0.8 * bit(0.08));
    }
  } else if (marker === "tongue") {
    ring(into, at, 1350 * bit(0.03), 0.011, loud * bit(0.1));
    ring(into, at, 2500 * bit(0.04), 0.006, loud * 0.5 * bit(0.1));
  } else if (marker === "whistle") glide(into, at, 1900 * bit(0.015), 2600 * bit(0.015), 0.16 * bit(0.06), loud);
  else {
    const base = 170 * bit(0.04);
    for (let k = 2; k < 24; k++) {
      const hz = base * k;
      const shape = Math.exp(-(((hz - 700) / 260) ** 2)) + 0.7 * Math.exp(-(((hz - 1900) / 400) ** 2));
      if (shape > 0.02) glide(into, at, hz, hz * 0.93, 0.19 * bit(0.06), loud * 0.4 * shape);
    }
  }
}

/** Wind: low noise that swells. */
export function addWind(into: Float32Array, rms: number, chance: Chance): void {
  let low = 0;
  let lower = 0;
  let sum = 0;
  const made = new Float32Array(into.length);
  for (let i = 0; i < into.length; i++) {
    const white = 2 * chance() - 1;
    low += 0.06 * (white - low);
    lower += 0.02 * (white - lower);
    const gust = 1 + 0.8 * Math.sin((2 * Math.PI * i) / seconds(3.7)) * Math.sin((2 * Math.PI * i) / seconds(1.3));
    made[i] = (low + lower + 0.05 * white) * gust;
    sum += (made[i] ?? 0) ** 2;
  }
  const scale = rms / Math.sqrt(sum / into.length);
  for (let i = 0; i < into.length; i++) into[i] = (into[i] ?? 0) + (made[i] ?? 0) * scale;
}

/** Hooves: a thud with grit in it, some a second. */
export function addHooves(into: Float32Array, loud: number, aSecond: number, chance: Chance): void {
  for (let at = seconds(0.2); at < into.length; at += seconds(1 / aSecond + drawExponential(chance, 0.04))) {
    ring(into, at, 90 * (1 + 0.1 * chance()), 0.03, loud);
    const grit = seconds(0.025);
    for (let i = 0; i < grit && at + i < into.length; i++)
      into[at + i] = (into[at + i] ?? 0) + loud * 0.35 * (2 * chance() - 1) * Math.exp(-i / seconds(0.006));
  }
}

/** A minute of a pen with markers in it, and where they are, in samples. */
export function penSound(
  marker: Marker,
  { marks, lasts, windDb, hoovesDb }: { marks: number; lasts: number; windDb: number | null; hoovesDb: number | null },
  chance: Chance,
): { sound: Float32Array; truth: number[] } {
  const loud = 0.3;
  const sound = new Float32Array(seconds(lasts));
  const truth: number[] = [];
  for (let k = 0; k < marks; k++) {
    const at = seconds(1 + ((lasts - 2) * (k + 0.2 + 0.6 * chance())) / marks);
    truth.push(at);
    addMarker(sound, at, marker, loud * (0.6 + 0.8 * chance()), chance);
  }
  // Levels are below the marker's own peak, in decibels.
  if (windDb !== null) addWind(sound, loud * 10 ** (-windDb / 20), chance);
  if (hoovesDb !== null) addHooves(sound, loud * 10 ** (-hoovesDb / 20), 3.2, chance);
  for (let i = 0; i < sound.length; i++) sound[i] = (sound[i] ?? 0) + 0.0005 * (2 * chance() - 1);
  return { sound, truth };
}

/** What teaching hears: so many markers in a quiet place. */
export function teachingSound(marker: Marker, samples: number, chance: Chance): Float32Array {
  const sound = new Float32Array(seconds(1 + samples * 1.1));
  for (let k = 0; k < samples; k++) addMarker(sound, seconds(0.9 + k * 1.1), marker, 0.3 * (0.8 + 0.4 * chance()), chance);
  for (let i = 0; i < sound.length; i++) sound[i] = (sound[i] ?? 0) + 0.0008 * (2 * chance() - 1);
  return sound;
}
