/** A small pad that lies in a row which slides sideways on a narrow screen. */
export const chip = (on: boolean) =>
  `min-h-12 shrink-0 touch-manipulation rounded-lg border-2 px-2.5 text-[0.95rem] font-semibold select-none disabled:opacity-40 ${on ? "border-ink bg-ink text-on-ink" : "border-ink bg-paper"}`;
