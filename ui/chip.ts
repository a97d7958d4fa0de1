/** A small pad that lies in the row above the pads. */
export const chip = (on: boolean) =>
  `min-h-11 max-w-full shrink-0 touch-manipulation rounded-lg border-2 px-2 text-[0.92rem] leading-tight font-semibold select-none disabled:opacity-40 ${on ? "border-ink bg-ink text-on-ink" : "border-ink bg-paper"}`;
