/**
 * A strand is one dimension of difficulty. A ladder chooses its strands; a
 * rung gives each of them a value.
 */
export interface Strand {
  /** Unique within its ladder. */
  readonly id: string;
  /** Which entry of the catalogue it is, or "own" for one the user made. */
  readonly key: StrandKey;
  readonly name: string;
  readonly kind: "number" | "levels";
  /** Unit of a number strand: "s", "m", "kg", "" for a count. */
  readonly unit: string;
  /** Levels from easiest to hardest, as this ladder orders them. Empty for a number strand. */
  readonly levels: readonly string[];
  /** For a number strand: whether more or less of it is harder. Levels are always harder later in the list. */
  readonly harder: "more" | "less";
}

/** A strand's value on a rung: a number, or the label of a level. */
export type StrandValue = number | string;

export const STRAND_KEYS = [
  "form",
  "steps",
  "stay",
  "reach",
  "approach",
  "latency",
  "gait",
  "circle",
  "side",
  "handler-place",
  "handler-motion",
  "tether",
  "build",
  "surroundings",
  "touch-zone",
  "tool",
  "company",
  "ease",
  "lightness",
  "load",
  "own",
] as const;

export type StrandKey = (typeof STRAND_KEYS)[number];

/** Ease grades, 0 to 4, in the words used on screen. */
export const EASE_GRADES = ["frantic", "tense", "unsettled", "soft", "deeply relaxed"] as const;

/** What the catalogue says of a strand: the starting point for a ladder's own copy. */
export type StrandTemplate = Omit<Strand, "id"> & {
  readonly hint: string;
  /** The least step of a number strand, in its unit: 1 s, 0.5 m, 1 count. */
  readonly leastStep: number;
  /** Least and greatest value a rung may ask for, in the unit. */
  readonly range: readonly [number, number];
  readonly wholeNumbers: boolean;
};
