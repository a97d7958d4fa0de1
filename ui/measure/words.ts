import { counted } from "@/core/words";

/** A share as whole per cent. */
export { percentWords as percent } from "@/core/words";

/** A number with a fixed count of decimals, or a dash where there is none. */
export const decimals = (value: number | null, places = 1) => (value === null ? "–" : value.toFixed(places));

/** Seconds as minutes and seconds, m:ss. */
export function clockWords(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

/** Minutes in words for a heading. */
export function minutesWords(seconds: number): string {
  const minutes = Math.round(seconds / 60);
  return minutes < 1 ? counted(Math.round(seconds), "second") : minutes === 1 ? "1 minute" : `${minutes} minutes`;
}
