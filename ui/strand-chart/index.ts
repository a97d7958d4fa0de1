export type { CordEditing } from "./cord-handle";
export { CueStairs } from "./cue-stairs";
export type { ChartEvidence } from "./evidence-row";
export { type ChartChanges, StrandChart } from "./strand-chart";
export { useFaults } from "./use-faults";
