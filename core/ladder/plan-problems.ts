import type { FieldProblem } from "../checks/common";
import { type Strand, templateOf } from "../strands";
import type { LadderPlan } from "./ladder";

/**
 * The fault of one rung value, in words, or null where it is good.
 * @example rungValueProblem(strand, 1000000000, 3) // "stay: from 0 to 3600 s."
 */
export function rungValueProblem(strand: Strand, value: unknown, phaseCount: number): string | null {
  if (strand.kind === "levels") {
    return typeof value === "string" && strand.levels.includes(value) ? null : `${strand.name}: choose one of its levels.`;
  }
  if (typeof value !== "number" || !Number.isFinite(value)) return `${strand.name}: a number is needed.`;
  const template = templateOf(strand.key);
  const [least, most] = strand.key === "lightness" ? [1, phaseCount] : template.range;
  if (value < least || value > most) return `${strand.name}: from ${least} to ${most}${strand.unit === "" ? "" : ` ${strand.unit}`}.`;
  if (template.wholeNumbers && !Number.isInteger(value)) return `${strand.name}: a whole number is needed.`;
  return null;
}

/**
 * What no field of a plan says alone: its rungs against its strands, its cue against what it asks for.
 * @returns every problem with its path; none where the plan can be worked.
 * @example planProblems({ ...plan, workingStrandId: "gone" }) // [{ path: "workingStrandId", message: "Counted strand: choose a strand of numbers." }]
 */
export function planProblems(plan: LadderPlan): FieldProblem[] {
  const problems: FieldProblem[] = [];
  plan.strands.forEach((strand, i) => {
    if (strand.kind === "levels" && strand.levels.length < 2)
      problems.push({ path: `strands[${i}].levels`, message: `${strand.name}: at least two levels.` });
    if (strand.kind === "levels" && new Set(strand.levels).size !== strand.levels.length)
      problems.push({ path: `strands[${i}].levels`, message: `${strand.name}: each level once.` });
  });
  plan.rungs.forEach((rung, i) => {
    for (const strand of plan.strands) {
      const problem = rungValueProblem(strand, rung.values[strand.id], plan.phases.length);
      if (problem !== null) problems.push({ path: `rungs[${i}].values.${strand.id}`, message: `Rung ${i + 1}, ${problem}` });
    }
  });
  if (plan.transfer !== null && plan.phases.length < 2)
    problems.push({ path: "transfer", message: "Cue transfer: the old cue is missing; it is phase 2." });
  plan.phases.forEach((phase, i) => {
    if (phase.profile === "pulse" && phase.pulsesPerMinute === null)
      problems.push({ path: `phases[${i}].pulsesPerMinute`, message: `Phase ${i + 1}: a pulse needs its beats a minute.` });
  });
  plan.rungs.forEach((rung, i) => {
    if (rung.percentile !== undefined && plan.workingStrandId === null)
      problems.push({ path: "workingStrandId", message: `Rung ${i + 1}: a bar that follows the values needs a counted strand.` });
  });
  if (plan.workingStrandId !== null) {
    const working = plan.strands.find((s) => s.id === plan.workingStrandId);
    if (working === undefined || working.kind !== "number")
      problems.push({ path: "workingStrandId", message: "Counted strand: choose a strand of numbers." });
  }
  return problems;
}
