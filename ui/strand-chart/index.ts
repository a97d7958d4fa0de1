export { CueStairs } from "./cue-stairs";
export { type ChartEvidence, StrandChart } from "./strand-chart";
