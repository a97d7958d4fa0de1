import type * as z from "zod";
import type { strandDocument } from "./document";

/** As its document says it. */
export type Strand = z.infer<typeof strandDocument>;

export const MOST_LEVELS = 12;

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

/** Grades of calm, 0 to 4, in the words used on screen. */
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
