import type { CirclePlan } from "@/core/circle";

/** A plan as tests begin with it: two minutes of walk and a minute of trot to the left, two of walk to the right. */
export const PLAN: CirclePlan = {
  form: "circle",
  radius_m: 10,
  radius_by: "line",
  segments: [
    { gait: "walk", side: "L", minutes: 2 },
    { gait: "trot", side: "L", minutes: 1 },
    { gait: "walk", side: "R", minutes: 2 },
  ],
  transitions: { by: "will", every: null, to: null },
  obstacles: [],
  led_first: false,
  ways: "both",
  kit: null,
  kit_stage: null,
  lines: null,
};
