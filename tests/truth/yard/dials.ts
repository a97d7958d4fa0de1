/**
 * A yard with habits: what a real one has beside its horses' own shares. Each
 * dial is off in {@link STILL}; logits are added to that of the true share.
 */
export interface Dials {
  /** Logits lower at the first ask, gone after six. */
  readonly cold: number;
  /** Logits lower by the twentieth ask than by the first. */
  readonly tires: number;
  /** Logits higher by the twentieth ask than by the first. */
  readonly learnsWithin: number;
  /** Logits higher by the last session than by the first. */
  readonly learnsOver: number;
  /** How alike neighbouring days are, 0 to under 1. */
  readonly moods: number;
  /** Days differ by so much on the logit. */
  readonly daySpread: number;
  /** How alike neighbouring asks are beyond their session, 0 to under 1. */
  readonly asksAlike: number;
  /** Signs and departures come in so many at once. */
  readonly bouts: number;
  /** Both signs and departures are commoner late in the session, by so many times. */
  readonly late: number;
  /** What ends a session: so many asks, two misses running, nine of ten, or the app's own word. */
  readonly trainer: "habit" | "failure" | "success" | "word";
  /** In which order sides and places come: by turns or drawn anew, always the same, or the one that went worse last time first. */
  readonly order: "by turns" | "always the same" | "worse first";
  /** From the middle of the season on a rung, or whatever is asked, is harder by so many logits. */
  readonly harder: number;
  /** Of the days, so many are not written down: at random, or the bad ones first. */
  readonly missing: "none" | "random" | "bad days";
  /** How calm it was is said after every ask, after one of two drawn, or mostly where the answer was right. */
  readonly values: "all" | "random" | "right ones";
}

export const STILL: Dials = {
  cold: 0,
  tires: 0,
  learnsWithin: 0,
  learnsOver: 0,
  moods: 0,
  daySpread: 0.7,
  asksAlike: 0,
  bouts: 1,
  late: 1,
  trainer: "habit",
  order: "by turns",
  harder: 0,
  missing: "none",
  values: "all",
};

/** Every dial at two strengths, by name, and those that come together in a real yard. */
export const DIALS: readonly (readonly [name: string, change: Partial<Dials>])[] = [
  ["nothing turned", {}],
  ["begins cold, a little", { cold: 0.8 }],
  ["begins cold", { cold: 1.6 }],
  ["tires, a little", { tires: 0.6 }],
  ["tires", { tires: 1.2 }],
  ["learns within the session, a little", { learnsWithin: 0.6 }],
  ["learns within the session", { learnsWithin: 1.2 }],
  ["learns over the season, a little", { learnsOver: 0.8 }],
  ["learns over the season", { learnsOver: 1.6 }],
  ["days in moods, 0.5", { moods: 0.5 }],
  ["days in moods, 0.8", { moods: 0.8 }],
  ["neighbouring asks alike, 0.3", { asksAlike: 0.3 }],
  ["neighbouring asks alike, 0.6", { asksAlike: 0.6 }],
  ["bouts of two", { bouts: 2 }],
  ["bouts of three", { bouts: 3 }],
  ["commoner late, twice", { late: 2 }],
  ["commoner late, four times", { late: 4 }],
  ["commoner late and in twos", { late: 3, bouts: 2 }],
  ["stops after two misses running", { trainer: "failure" }],
  ["ends at nine of ten", { trainer: "success" }],
  ["follows the app's word", { trainer: "word" }],
  ["always in the same order", { order: "always the same" }],
  ["the worse first", { order: "worse first" }],
  ["begins cold, always in the same order", { cold: 1.6, order: "always the same" }],
  ["begins cold, the worse first", { cold: 1.6, order: "worse first" }],
  ["tires, always in the same order", { tires: 1.2, order: "always the same" }],
  ["tires, the worse first", { tires: 1.2, order: "worse first" }],
  ["easier by and by, always in the same order", { learnsWithin: 1.2, order: "always the same" }],
  ["easier by and by, the worse first", { learnsWithin: 1.2, order: "worse first" }],
  ["days in moods, stops after two misses running", { moods: 0.6, trainer: "failure" }],
  ["neighbouring asks alike, follows the app's word", { asksAlike: 0.3, trainer: "word" }],
  ["a harder rung from the middle on, a little", { harder: 0.6 }],
  ["a harder rung from the middle on", { harder: 1.2 }],
  ["days missing at random", { missing: "random" }],
  ["bad days missing", { missing: "bad days" }],
  ["calm said at random", { values: "random" }],
  ["calm said where it was right", { values: "right ones" }],
];
