export { type CueClash, type CueOfBehaviour, cueClashes, MOVEMENTS, type Movement } from "./clash";
export {
  CUE_KINDS,
  type CueKind,
  type CuePhase,
  DWELL_SECONDS,
  MOST_CUE_PHASES,
  PRESSURE_PROFILES,
  type PressureProfile,
  PULSES_PER_MINUTE,
} from "./phase";
export { TRANSFER_DONE, type TransferProgress, type TransferTrial, transferProgress } from "./transfer";
