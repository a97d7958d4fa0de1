import { document, name, number, within, word } from "../documents";
import { CUE_KINDS, DWELL_SECONDS, PRESSURE_PROFILES, PULSES_PER_MINUTE } from "./phase";

/** One phase of the ask, from the lightest (1) to the clearest. */
export const cuePhaseDocument = document({
  label: name,
  kind: word(CUE_KINDS),
  profile: word(PRESSURE_PROFILES),
  /** How long it is held before the next phase, in seconds. */
  dwellSeconds: within(number, DWELL_SECONDS),
  /** Beats a minute of a pulsing phase; null for the others. */
  pulsesPerMinute: within(number, PULSES_PER_MINUTE).nullable(),
});
