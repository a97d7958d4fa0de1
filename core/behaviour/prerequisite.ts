import type * as z from "zod";
import { asksBothSides, type LadderPlan } from "../ladder";
import { difficulty, type Strand, type StrandValue, shortNumber } from "../strands";
import type { prerequisiteDocument } from "./document";

/** As its document says it. */
export type Prerequisite = z.infer<typeof prerequisiteDocument>;

/** The most a behaviour may rest on. */
export const MOST_PREREQUISITES = 16;

/**
 * "crossing steps 2, both sides, at phase 2 or lighter": a prerequisite without the behaviour's name.
 * @example prerequisiteWords({ … }) // "stay 4"
 */
export function prerequisiteWords({ values, maxPhase }: Prerequisite): string {
  const parts = Object.entries(values).map(([name, value]) => {
    if (name === "side") return value === "both" ? "both sides" : `${value} side`;
    if (name === "ease" || name === "taken") return `${value} or softer`;
    return typeof value === "number" ? `${name} ${shortNumber(value)}` : `${value}`;
  });
  if (maxPhase !== undefined) parts.push(maxPhase === 1 ? "at the lightest cue" : `at phase ${maxPhase} or lighter`);
  return parts.join(", ");
}

const strandCalled = (strands: readonly Strand[], name: string) =>
  strands.find((strand) => strand.name === name) ?? strands.find((strand) => strand.key === name);

/** Whether a value reaches a wanted one: at least as hard; a strand whose levels do not know the wanted one must hold it exactly. */
function reaches(strand: Strand, value: StrandValue | undefined, wanted: StrandValue): boolean {
  if (value === undefined) return false;
  if (strand.key === "side") return value === "both" || value === wanted;
  try {
    return difficulty(strand, value) >= difficulty(strand, wanted);
  } catch {
    return value === wanted;
  }
}

/**
 * The lowest rung of a ladder that reaches a prerequisite, counted from 1;
 * null where none does. Strands the ladder does not have are left to the eye:
 * they are returned so that the screen can say so.
 * @example rungReaching(plan, { … }) // { rung: 9, unknown: [] }
 */
export function rungReaching(plan: LadderPlan, { values }: Prerequisite): { rung: number | null; unknown: readonly string[] } {
  const unknown = Object.keys(values).filter((name) => strandCalled(plan.strands, name) === undefined);
  const found = plan.rungs.findIndex((rung) =>
    Object.entries(values).every(([name, wanted]) => {
      const strand = strandCalled(plan.strands, name);
      return strand === undefined || reaches(strand, rung.values[strand.id], wanted);
    }),
  );
  return { rung: found < 0 ? null : found + 1, unknown };
}

/**
 * Whether values that were seen once reach a prerequisite. A strand they say
 * nothing of was not tested, and so is not reached.
 * @example covers(strands, seen, { … }) // true
 */
export function covers(strands: readonly Strand[], seen: Readonly<Record<string, StrandValue>>, { values }: Prerequisite): boolean {
  return Object.entries(values).every(([name, wanted]) => {
    const strand = strandCalled(strands, name);
    return strand !== undefined && reaches(strand, seen[strand.name] ?? seen[strand.key], wanted);
  });
}

/** Whether a rung is to be shown on both sides for a prerequisite. @example wantsBothSides(plan, 3, { … }) // true */
export function wantsBothSides(plan: LadderPlan, rung: number, { values }: Prerequisite): boolean {
  return values.side === "both" || (values.side === undefined && asksBothSides(plan, rung));
}
