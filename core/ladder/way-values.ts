export const WAY_KEYS = ["pressure", "directions", "begins", "first", "leaving", "turning-in"] as const;
export type WayKey = (typeof WAY_KEYS)[number];

/** What was chosen, by question; a question left out takes its first option. */
export type Ways = { readonly [K in WayKey]?: string } & {
  /** Which of its library template's ways the ladder began with, by the way's key. */
  readonly taught?: string;
};

/** Whether one direction a day is worked, in turn. Apart from the reasons of ways.ts, which the recorder's first script does without. */
export const oneSideADay = (ways: Ways): boolean => ways.directions === "one-a-day";
