/** What somebody at the horse does while several are there. */
export const PARTS = ["handles", "leads", "touches", "companion", "watches"] as const;
export type Part = (typeof PARTS)[number];

/** The same in words. */
export const PART_WORDS: Readonly<Record<Part, string>> = {
  handles: "handles",
  leads: "leads at the head",
  touches: "touches",
  companion: "rides or leads the companion",
  watches: "watches",
};
