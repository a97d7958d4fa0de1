export { CUE_KINDS, type CueKind, type CuePhase, MOST_CUE_PHASES, PRESSURE_PROFILES, type PressureProfile } from "./phase";
