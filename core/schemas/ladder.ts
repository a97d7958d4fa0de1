import * as yup from "yup";
import { CUE_KINDS, MOST_CUE_PHASES, PRESSURE_PROFILES } from "../cues";
import { FEWEST_RUNGS, type LadderPlan, METHODS, MOST_RUNGS, OFFER_RULES } from "../ladder";
import { STRAND_KEYS, type Strand, templateOf } from "../strands";
import { INVOLVEMENTS } from "../welfare/restrictions";
import {
  type Checked,
  check,
  choiceSchema,
  type FieldProblem,
  nameSchema,
  numberSchema,
  optionalNumberSchema,
  textSchema,
  wholeNumberSchema,
} from "./common";

export const behaviourSchema = yup.object({
  name: nameSchema("Behaviour"),
  finished: textSchema("What it looks like when finished", 1000),
  cue: textSchema("Cue", 200),
  why: textSchema("Why", 1000),
  involves: yup.array().of(choiceSchema("Involves", INVOLVEMENTS)).default([]),
});
export type BehaviourInput = yup.InferType<typeof behaviourSchema>;

const strandSchema = yup.object({
  id: yup
    .string()
    .required("Strand: an id is missing.")
    .matches(/^[a-z0-9-]{1,40}$/, "Strand: letters, digits and hyphens in its id."),
  key: choiceSchema("Strand", STRAND_KEYS),
  name: nameSchema("Strand name"),
  kind: choiceSchema("Strand kind", ["number", "levels"] as const),
  unit: textSchema("Unit", 20),
  levels: yup.array().of(nameSchema("Level")).max(12, "Levels: at most 12.").default([]),
  harder: choiceSchema("Harder is", ["more", "less"] as const),
});

const masterySchema = yup.lazy((value: unknown) => {
  const kind = typeof value === "object" && value !== null && "kind" in value ? value.kind : undefined;
  switch (kind) {
    case "share":
      return yup.object({
        kind: yup.string<"share">().oneOf(["share"]).required(),
        met: wholeNumberSchema("Met", 1, 12).test("within", "Met: no more than the trials looked at.", (met, context) => {
          const of: unknown = context.parent.of;
          return typeof of !== "number" || met <= of;
        }),
        of: wholeNumberSchema("Of", 1, 12),
        window: choiceSchema("Window", ["moving", "block"] as const),
      });
    case "run":
      return yup.object({ kind: yup.string<"run">().oneOf(["run"]).required(), length: wholeNumberSchema("In a row", 1, 20) });
    case "posterior":
      return yup.object({
        kind: yup.string<"posterior">().oneOf(["posterior"]).required(),
        target: numberSchema("Target share", 0.05, 0.99),
        confidence: numberSchema("Sure by", 0.5, 0.999),
        least: wholeNumberSchema("At least", 1, 50, "trials"),
      });
    case "first-clean":
      return yup.object({ kind: yup.string<"first-clean">().oneOf(["first-clean"]).required() });
    default:
      return yup.object({ kind: choiceSchema("Moves on when", ["share", "run", "posterior", "first-clean"] as const) });
  }
});

const scheduleSchema = yup.object({
  kind: choiceSchema("Schedule", ["every", "fixed"] as const),
  ratio: yup.number().when("kind", {
    is: "fixed",
    then: () => wholeNumberSchema("Every nth", 2, 20),
    otherwise: (schema) => schema.optional(),
  }),
});

const phaseSchema = yup.object({
  label: nameSchema("Phase"),
  kind: choiceSchema("Kind of cue", CUE_KINDS),
  profile: choiceSchema("Pressure", PRESSURE_PROFILES),
  dwellSeconds: numberSchema("Held for", 0.2, 60, "s"),
  pulsesPerMinute: optionalNumberSchema("Beats", 10, 300, "a minute"),
});

const planSchema = yup.object({
  method: choiceSchema("Method", METHODS),
  strands: yup
    .array()
    .of(strandSchema)
    .required("Strands are missing.")
    .min(1, "Choose at least one strand.")
    .max(12, "At most 12 strands.")
    .test("distinct", "Strands: each needs its own id.", (list) => new Set((list ?? []).map((s) => s.id)).size === (list ?? []).length),
  rungs: yup
    .array()
    .of(yup.object({ values: yup.object().required("Rung: its values are missing.") }))
    .required("Rungs are missing.")
    .min(FEWEST_RUNGS, `At least ${FEWEST_RUNGS} rungs.`)
    .max(MOST_RUNGS, `At most ${MOST_RUNGS} rungs.`),
  phases: yup
    .array()
    .of(phaseSchema)
    .required("The cue is missing.")
    .min(1, "The cue needs at least one phase.")
    .max(MOST_CUE_PHASES, `At most ${MOST_CUE_PHASES} phases.`),
  maximumSeconds: numberSchema("Longest ask", 1, 600, "s"),
  mastery: masterySchema,
  schedule: scheduleSchema,
  offers: choiceSchema("An offer earns", OFFER_RULES),
  workingStrandId: yup.string().nullable().default(null),
  plannedRepetitions: wholeNumberSchema("Repetitions", 1, 50),
});

/** The fault of one rung value, in words, or null where it is good. */
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

function crossProblems(plan: LadderPlan): FieldProblem[] {
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
  if (plan.workingStrandId !== null) {
    const working = plan.strands.find((s) => s.id === plan.workingStrandId);
    if (working === undefined || working.kind !== "number")
      problems.push({ path: "workingStrandId", message: "Counted strand: choose a strand of numbers." });
  }
  return problems;
}

/** Checks a whole plan, field by field and then the rungs against their strands. */
export function checkLadderPlan(value: unknown): Checked<LadderPlan> {
  const checked = check(planSchema, value);
  if (!checked.ok) return checked;
  const raw = checked.value;
  // Values of strands that are gone are left out rather than kept as strays.
  const ids = new Set(raw.strands.map((s) => s.id));
  const plan = {
    ...raw,
    rungs: raw.rungs.map((rung) => ({ values: Object.fromEntries(Object.entries(rung.values).filter(([id]) => ids.has(id))) })),
  } as LadderPlan;
  const problems = crossProblems(plan);
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: plan };
}
