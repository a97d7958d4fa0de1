/** One phase of the ask, from the lightest (1) to the clearest. */
export interface CuePhase {
  readonly label: string;
  readonly kind: CueKind;
  readonly profile: PressureProfile;
  /** How long it is held before the next phase, in seconds. */
  readonly dwellSeconds: number;
  /** Beats a minute of a pulsing phase; null for the others. */
  readonly pulsesPerMinute: number | null;
}

export const CUE_KINDS = ["body", "point", "wave", "voice", "touch", "lead", "tap", "food target"] as const;
export type CueKind = (typeof CUE_KINDS)[number];

export const PRESSURE_PROFILES = ["steady", "rising", "pulse"] as const;
export type PressureProfile = (typeof PRESSURE_PROFILES)[number];

export const MOST_CUE_PHASES = 5;
