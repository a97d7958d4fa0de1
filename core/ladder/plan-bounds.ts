/** The least and the most of every number of a plan that is neither the cue's nor the rule's, for the form that takes it and for the document that keeps it. */
export const PLAN_BOUNDS = {
  ratio: [2, 20],
  lookBack: [3, 50],
  wantedShare: [0.1, 0.95],
  leastMovement: [0, 4],
  /** Of what the handler may do within one ask. */
  handlerMost: [0, 100],
  pieceGrams: [0.1, 200],
  dayLimitGrams: [1, 10_000],
  politeSeconds: [0, 30],
  maximumSeconds: [1, 600],
  firstTouchCentimetres: [0, 500],
  gapSeconds: [0.2, 30],
  plannedRepetitions: [1, 50],
} as const satisfies Readonly<Record<string, readonly [least: number, most: number]>>;

/** The most signs that are pinned to a ladder or a horse: more do not fit in sight. */
export const MOST_PINNED = 8;
export const MOST_RIG_CHECKS = 12;
