import type * as z from "zod";
import type { cuePhaseDocument } from "./document";

/** As its document says it. */
export type CuePhase = z.infer<typeof cuePhaseDocument>;

/** The least and the most a phase is held, in seconds, and its beats a minute. */
export const DWELL_SECONDS = [0.2, 60] as const;
export const PULSES_PER_MINUTE = [10, 300] as const;

export const CUE_KINDS = ["body", "point", "wave", "voice", "touch", "lead", "tap", "food target"] as const;
export type CueKind = (typeof CUE_KINDS)[number];

export const PRESSURE_PROFILES = ["steady", "rising", "pulse"] as const;
export type PressureProfile = (typeof PRESSURE_PROFILES)[number];

export const MOST_CUE_PHASES = 5;
