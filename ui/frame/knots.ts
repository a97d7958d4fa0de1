/** The five rooms of the work, in the order it goes. */
export const KNOTS = [
  { key: "know", label: "Know", hint: "the horse" },
  { key: "shape", label: "Shape", hint: "the plan" },
  { key: "work", label: "Work", hint: "the session" },
  { key: "review", label: "Review", hint: "what happened" },
  { key: "ahead", label: "Ahead", hint: "what comes next" },
] as const;

export type KnotKey = (typeof KNOTS)[number]["key"];
