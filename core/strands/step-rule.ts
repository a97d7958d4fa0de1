import { templateOf } from "./catalogue";
import { difficulty } from "./height";
import type { Strand, StrandValue } from "./strand";

/** The most a number may grow from one rung to the next, as a ratio (common practice, no source). */
export const GREATEST_STEP_RATIO = 2;

/** A fault between two neighbouring rungs. Rung numbers count from 1. */
export interface StepFault {
  readonly rung: number;
  readonly kind: "several-harder" | "step-too-large" | "level-skipped";
  readonly strandIds: readonly string[];
  readonly sentence: string;
}

const isCount = (strand: Strand) => strand.kind === "number" && templateOf(strand.key).wholeNumbers;

/**
 * Whether a number may go from one value to the next harder one: at most ×2;
 * whole numbers +1 below 4, then at most the ratio rounded down, never less
 * than +1; from zero, or down to zero, by the unit's least step.
 * @example stepAllowed(strand, 8, 4) // true
 */
export function stepAllowed(strand: Strand, from: number, to: number, ratio = GREATEST_STEP_RATIO): boolean {
  if (difficulty(strand, to) <= difficulty(strand, from)) return true;
  const low = Math.min(Math.abs(from), Math.abs(to));
  const high = Math.max(Math.abs(from), Math.abs(to));
  const slack = 1e-9;
  if (from === 0 || to === 0 || Math.sign(from) !== Math.sign(to)) {
    return Math.abs(to - from) <= templateOf(strand.key).leastStep + slack;
  }
  if (isCount(strand)) return high <= (low < 4 ? low + 1 : Math.max(low + 1, Math.floor(low * ratio)));
  return high <= low * ratio + slack;
}

/**
 * Checks the one-strand rule and the step sizes of a ladder's rungs.
 * `rungs` hold values by strand id, from the first rung to the last.
 * @example stepFaults(strands, [{ a: 1, b: 5, c: 3 }, { a: 4, b: 5, c: 2 }]) // 2 of them
 */
export function stepFaults(strands: readonly Strand[], rungs: readonly Readonly<Record<string, StrandValue>>[]): StepFault[] {
  const faults: StepFault[] = [];
  for (let i = 1; i < rungs.length; i++) {
    const before = rungs[i - 1] ?? {};
    const here = rungs[i] ?? {};
    const harder: Strand[] = [];
    for (const strand of strands) {
      const from = before[strand.id];
      const to = here[strand.id];
      if (from === undefined || to === undefined) continue;
      const rise = difficulty(strand, to) - difficulty(strand, from);
      if (rise <= 0) continue;
      harder.push(strand);
      if (strand.kind === "levels" && rise > 1) {
        faults.push({
          rung: i + 1,
          kind: "level-skipped",
          strandIds: [strand.id],
          sentence: `Rung ${i + 1} skips a level of ${strand.name}.`,
        });
      }
      if (strand.kind === "number" && !stepAllowed(strand, Number(from), Number(to))) {
        faults.push({
          rung: i + 1,
          kind: "step-too-large",
          strandIds: [strand.id],
          sentence: `Rung ${i + 1} takes ${strand.name} from ${from} to ${to} in one step.`,
        });
      }
    }
    if (harder.length > 1) {
      faults.push({
        rung: i + 1,
        kind: "several-harder",
        strandIds: harder.map((strand) => strand.id),
        sentence: `Rung ${i + 1} asks ${harder.length} new things: ${harder.map((strand) => strand.name).join(" and ")}.`,
      });
    }
  }
  return faults;
}
