/** The small signs of the pads: the same shapes the ribbon draws. */
export const icon = { size: 22, "aria-hidden": true } as const;

export function Sign({ d, fill = false, width = 24 }: { d: string; fill?: boolean; width?: number }) {
  return (
    <svg width={width} height={(width * 18) / 24} viewBox="-12 -9 24 18" aria-hidden="true">
      <path d={d} fill={fill ? "currentColor" : "none"} stroke={fill ? "none" : "currentColor"} strokeWidth="2.6" />
    </svg>
  );
}

export const DIAMOND = "M0 -8 L6.5 0 L0 8 L-6.5 0 Z";
export const SEED = "M-8 0 A8 5 0 1 0 8 0 A8 5 0 1 0 -8 0 Z";
export const BOWL = "M-8 -5 A8 9 0 0 0 8 -5";
export const PEAK = "M-8 6 L0 -6 L8 6";
export const WAVE = "M-10 2 Q-5 -6 0 2 T10 2";
/** Danger: a solid wedge. */
export const WEDGE = "M-8 8 L0 -8 L8 8 Z";
/** An offer: a ring that nothing led up to. */
export const OFFER = "M-5 3 A5 5 0 1 1 5 3 M-10 7 L10 7";
