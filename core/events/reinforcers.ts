export const REINFORCERS = ["food", "scratch", "rest", "away"] as const;
/** What the horse gets besides the release; for a horse without food, a scratch, a rest or going away from the worry. */
export type Reinforcer = (typeof REINFORCERS)[number];
