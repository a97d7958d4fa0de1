import type { CirclePlan } from "@/core/circle";

/** A plan as tests begin with it: two minutes of walk and a minute of trot to the left, two of walk to the right. */
export const PLAN: CirclePlan = {
  form: "circle",
  radiusMetres: 10,
  radiusBy: "line",
  segments: [
    { gait: "walk", side: "L", minutes: 2 },
    { gait: "trot", side: "L", minutes: 1 },
    { gait: "walk", side: "R", minutes: 2 },
  ],
  transitions: { by: "will", every: null, to: null },
  obstacles: [],
  ledFirst: false,
  ways: "both",
  kit: null,
  kitStage: null,
  lines: null,
};
