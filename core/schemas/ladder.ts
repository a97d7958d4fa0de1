import * as yup from "yup";
import { CHAIN_DIRECTIONS } from "../behaviour/chain";
import { MOST_PREREQUISITES } from "../behaviour/prerequisite";
import {
  type Checked,
  check,
  choiceSchema,
  flagSchema,
  nameSchema,
  numberSchema,
  optionalNumberSchema,
  record,
  textSchema,
  wholeNumberSchema,
} from "../checks/common";
import { CONTROL_IN_TEXT, NAME_MOST_CHARACTERS, TEXT_MOST_CHARACTERS } from "../checks/limits";
import { CUE_KINDS, DWELL_SECONDS, MOST_CUE_PHASES, MOVEMENTS, PRESSURE_PROFILES, PULSES_PER_MINUTE } from "../cues";
import {
  type Conversation,
  FEWEST_RUNGS,
  HANDLER_ACTS,
  type LadderPlan,
  METHODS,
  MOST_PINNED,
  MOST_RIG_CHECKS,
  MOST_RUNGS,
  MOST_STRANDS,
  OFFER_RULES,
  OWN_TIMES,
  PLAN_BOUNDS,
  PLAN_DEFAULTS,
  planProblems,
  REINFORCERS,
  RIG_TIMES,
  SCHEDULE_KINDS,
  WAY_KEYS,
  WAYS,
} from "../ladder";
import { type MasteryRule, RULE_BOUNDS } from "../mastery";
import { MOST_LEVELS, STRAND_KEYS } from "../strands";
import { isRecord } from "../typed";
import { INVOLVEMENTS } from "../welfare/restrictions";

export const behaviourSchema = record({
  name: nameSchema("Behaviour"),
  finished: textSchema("What it looks like when finished", 1000),
  cue: textSchema("Cue", 200),
  why: textSchema("Why", 1000),
  involves: yup.array().of(choiceSchema("Involves", INVOLVEMENTS)).default([]),
  /** What the cue asks the body to do. */
  movement: yup
    .string()
    .typeError("Asks for: choose one of the list.")
    .oneOf(MOVEMENTS, "Asks for: choose one of the list.")
    .default("other"),
  /** Its key in the library, where it came from there. */
  template: yup
    .string()
    .transform((_value, original: unknown) => original)
    .typeError("Template: text is needed.")
    .nullable()
    .max(60, "Template: at most 60 characters.")
    .default(null),
  /** Worked free, without a line: some settings belong to that alone. */
  free: flagSchema("Worked free").default(false),
  prerequisites: yup
    .array()
    .of(
      record({
        behaviour: nameSchema("Rests on"),
        values: yup
          .object()
          .default({})
          .test("values", "Rests on: each value is a number or a level.", (values) =>
            Object.values(values as Record<string, unknown>).every(
              (value) => typeof value === "string" || (typeof value === "number" && Number.isFinite(value)),
            ),
          ),
        maxPhase: yup
          .number()
          .transform((_value, original: unknown) => original)
          .typeError("Rests on, phase: a whole number is needed.")
          .integer("Rests on, phase: a whole number is needed.")
          .min(1, "Rests on, phase: 1 or more.")
          .max(MOST_CUE_PHASES, `Rests on, phase: at most ${MOST_CUE_PHASES}.`),
      }),
    )
    .max(MOST_PREREQUISITES, `Rests on: at most ${MOST_PREREQUISITES}.`)
    .default([]),
});
export type BehaviourInput = yup.InferType<typeof behaviourSchema>;

/** A behaviour of which nothing is said yet. */
export const EMPTY_BEHAVIOUR: BehaviourInput = {
  name: "",
  finished: "",
  cue: "",
  why: "",
  involves: [],
  movement: "other",
  template: null,
  free: false,
  prerequisites: [],
};

/** A strand's words by its values, as its document has them. */
const phrasesSchema = yup
  .mixed((value): value is Readonly<Record<string, string>> => {
    if (!isRecord(value)) return false;
    return Object.entries(value).every(
      ([of, words]) =>
        of.length <= NAME_MOST_CHARACTERS &&
        typeof words === "string" &&
        words.length <= TEXT_MOST_CHARACTERS &&
        !CONTROL_IN_TEXT.test(words),
    );
  })
  .optional()
  .typeError("Strand: its phrases are a text for each value.");

const strandSchema = record({
  id: yup
    .string()
    .required("Strand: an id is missing.")
    .matches(/^[a-z0-9-]{1,40}$/, "Strand: letters, digits and hyphens in its id."),
  key: choiceSchema("Strand", STRAND_KEYS),
  name: nameSchema("Strand name"),
  kind: choiceSchema("Strand kind", ["number", "levels"] as const),
  unit: textSchema("Unit", 20),
  levels: yup.array().of(nameSchema("Level")).max(MOST_LEVELS, `Levels: at most ${MOST_LEVELS}.`).default([]),
  harder: choiceSchema("Harder is", ["more", "less"] as const),
  phrases: phrasesSchema,
});

/** On how many different days the rule is to hold; left out, one is enough. */
const masteryDays = { days: wholeNumberSchema("On days", ...RULE_BOUNDS.days).optional() };

const masterySchema = yup.lazy((value: unknown) => {
  const kind = typeof value === "object" && value !== null && "kind" in value ? value.kind : undefined;
  switch (kind) {
    case "share":
      return record({
        kind: yup.string<"share">().oneOf(["share"]).required(),
        met: wholeNumberSchema("Met", ...RULE_BOUNDS.shareOf).test("within", "Met: no more than the trials looked at.", (met, context) => {
          const of: unknown = context.parent.of;
          return typeof of !== "number" || met <= of;
        }),
        of: wholeNumberSchema("Of", ...RULE_BOUNDS.shareOf),
        window: choiceSchema("Window", ["moving", "block"] as const),
        ...masteryDays,
      });
    case "run":
      return record({
        kind: yup.string<"run">().oneOf(["run"]).required(),
        length: wholeNumberSchema("In a row", ...RULE_BOUNDS.runLength),
        ...masteryDays,
      });
    case "posterior":
      return record({
        kind: yup.string<"posterior">().oneOf(["posterior"]).required(),
        target: numberSchema("Target share", ...RULE_BOUNDS.targetShare),
        confidence: numberSchema("Sure by", ...RULE_BOUNDS.confidence),
        least: wholeNumberSchema("At least", ...RULE_BOUNDS.leastTrials, "trials"),
        ...masteryDays,
      });
    case "first-clean":
      return record({ kind: yup.string<"first-clean">().oneOf(["first-clean"]).required(), ...masteryDays });
    default:
      return record({ kind: choiceSchema("Moves on when", ["share", "run", "posterior", "first-clean"] as const) });
  }
});

/** Checks a mastery rule by itself. @example checkMasteryRule({ kind: "run", length: 3 }).ok // true */
export function checkMasteryRule(value: unknown): Checked<MasteryRule> {
  const checked = check(yup.object({ mastery: masterySchema }), { mastery: value });
  return checked.ok ? { ok: true, value: checked.value.mastery as MasteryRule } : checked;
}

const scheduleSchema = record({
  kind: choiceSchema("Schedule", SCHEDULE_KINDS),
  ratio: yup
    .number()
    .when("kind", ([kind], schema) =>
      kind === "fixed"
        ? wholeNumberSchema("Every nth", ...PLAN_BOUNDS.ratio)
        : kind === "variable"
          ? wholeNumberSchema("One in", ...PLAN_BOUNDS.ratio)
          : schema.optional(),
    ),
});

const rungSchema = record({
  values: yup.object().required("Rung: its values are missing."),
  method: choiceSchema("Method", METHODS).optional(),
  schedule: scheduleSchema.optional().default(undefined),
  percentile: record({
    lookBack: wholeNumberSchema("Last values looked at", ...PLAN_BOUNDS.lookBack),
    wantedShare: numberSchema("Share to reinforce", ...PLAN_BOUNDS.wantedShare),
  })
    .optional()
    .default(undefined),
  kept: textSchema("Why the fault is kept", 300).optional(),
  leastMovement: wholeNumberSchema("Movement at least", ...PLAN_BOUNDS.leastMovement).optional(),
  handlerMost: yup
    .array()
    .of(record({ act: choiceSchema("What you do", HANDLER_ACTS), most: wholeNumberSchema("At most", ...PLAN_BOUNDS.handlerMost) }))
    .max(HANDLER_ACTS.length)
    .optional()
    .default(undefined),
});

const signSchema = record({
  name: nameSchema("Sign"),
  class: choiceSchema("Kind of sign", ["ease", "tension", "danger", "pain", "count"] as const),
});

const signsSchema = yup.array().of(signSchema).max(MOST_PINNED, `Signs: at most ${MOST_PINNED}.`);

/** The signs pinned to a horse. */
export const pinnedSignsSchema = record({ signs: signsSchema.default([]) });
/** A sign of the yard's own. */
export const ownSignSchema = signSchema;

/** What is logged between the asks. */
const conversationSchema = record({
  whenWrong: record({
    did: textSchema("What it does", 80),
    met: textSchema("What it meets", 80),
    plan: textSchema("When it chooses wrong", 300),
  })
    .optional()
    .default(undefined),
  ownTimes: yup.array().of(choiceSchema("Its own time", OWN_TIMES)).max(OWN_TIMES.length).optional().default(undefined),
  pinned: signsSchema.optional().default(undefined),
  acts: yup.array().of(choiceSchema("What you do", HANDLER_ACTS)).max(HANDLER_ACTS.length).optional().default(undefined),
  movement: yup.array().of(nameSchema("Movement")).length(5, "Movement: five words, from 0 to 4.").optional().default(undefined),
  retreats: flagSchema("Going away has a pad").optional(),
  rig: yup
    .array()
    .of(record({ text: nameSchema("Rig"), when: choiceSchema("Asked", RIG_TIMES) }))
    .max(MOST_RIG_CHECKS, `Rig: at most ${MOST_RIG_CHECKS}.`)
    .optional()
    .default(undefined),
});

const feedingSchema = record({
  reinforcer: choiceSchema("Besides the release", REINFORCERS),
  pieceGrams: optionalNumberSchema("One piece", ...PLAN_BOUNDS.pieceGrams, "g"),
  dayLimitGrams: optionalNumberSchema("Most a day", ...PLAN_BOUNDS.dayLimitGrams, "g"),
  where: textSchema("Given where", 120),
  politeSeconds: numberSchema("Head turned away", ...PLAN_BOUNDS.politeSeconds, "s"),
});

/** Each question takes one of its own options; anything else is refused rather than read as the first. */
const waysSchema = record({
  ...Object.fromEntries(
    WAY_KEYS.map((key) => {
      const way = WAYS.find((one) => one.key === key);
      const values = way?.options.map(({ value }) => value) ?? [];
      return [key, yup.string().oneOf(values, `${way?.question ?? key}: choose one of the two.`)];
    }),
  ),
  taught: yup.string().max(40, "Way of teaching: at most 40 characters."),
});

const phaseSchema = record({
  label: nameSchema("Phase"),
  kind: choiceSchema("Kind of cue", CUE_KINDS),
  profile: choiceSchema("Pressure", PRESSURE_PROFILES),
  dwellSeconds: numberSchema("Held for", ...DWELL_SECONDS, "s"),
  pulsesPerMinute: optionalNumberSchema("Beats", ...PULSES_PER_MINUTE, "a minute"),
});

/** A plan field by field; {@link checkLadderPlan} checks its rungs against its strands too. */
export const planSchema = record({
  method: choiceSchema("Method", METHODS),
  strands: yup
    .array()
    .of(strandSchema)
    .required("Strands are missing.")
    .min(1, "Choose at least one strand.")
    .max(MOST_STRANDS, `At most ${MOST_STRANDS} strands.`)
    .test("distinct", "Strands: each needs its own id.", (list) => {
      const ids = (list ?? []).map((strand: { id?: string } | null) => strand?.id);
      return new Set(ids).size === ids.length;
    }),
  rungs: yup
    .array()
    .of(rungSchema)
    .required("Rungs are missing.")
    .min(FEWEST_RUNGS, `At least ${FEWEST_RUNGS} rungs.`)
    .max(MOST_RUNGS, `At most ${MOST_RUNGS} rungs.`),
  phases: yup
    .array()
    .of(phaseSchema)
    .required("The cue is missing.")
    .min(1, "The cue needs at least one phase.")
    .max(MOST_CUE_PHASES, `At most ${MOST_CUE_PHASES} phases.`),
  maximumSeconds: numberSchema("Longest ask", ...PLAN_BOUNDS.maximumSeconds, "s"),
  holdOnWrong: flagSchema("Held on a wrong answer").default(PLAN_DEFAULTS.holdOnWrong),
  firstTouchCentimetres: optionalNumberSchema("First touch from", ...PLAN_BOUNDS.firstTouchCentimetres, "cm"),
  transfer: record({ gapSeconds: numberSchema("Gap to the old cue", ...PLAN_BOUNDS.gapSeconds, "s") })
    .nullable()
    .default(null),
  feeding: feedingSchema.default(PLAN_DEFAULTS.feeding),
  ways: waysSchema.default({}),
  mastery: masterySchema,
  schedule: scheduleSchema,
  offers: choiceSchema("An offer earns", OFFER_RULES),
  workingStrandId: yup
    .string()
    .transform((_value, original: unknown) => original)
    .typeError("Counted strand: choose one.")
    .nullable()
    .default(null),
  plannedRepetitions: wholeNumberSchema("Repetitions", ...PLAN_BOUNDS.plannedRepetitions),
  conversation: conversationSchema.optional().default(undefined),
});

/** What is logged between the asks without what says nothing; undefined where nothing is left. */
function withoutNothing(conversation: Conversation | undefined): Conversation | undefined {
  if (conversation === undefined) return undefined;
  const { whenWrong, ...rest } = conversation;
  const said = Object.entries(rest).filter(
    ([, part]) => part !== undefined && part !== false && !(Array.isArray(part) && part.length === 0),
  );
  const planned = whenWrong !== undefined && Object.values(whenWrong).some((text) => text !== "");
  // A pad for wrong choices stands there as soon as it is asked for, also before a plan is made.
  const all = {
    ...Object.fromEntries(said),
    ...(whenWrong === undefined ? {} : { whenWrong: planned ? whenWrong : { did: "", met: "", plan: "" } }),
  };
  return Object.keys(all).length === 0 ? undefined : all;
}

/** Checks a whole plan, field by field and then the rungs against their strands. @example checkLadderPlan(0) // { ok: false, … } */
export function checkLadderPlan(value: unknown): Checked<LadderPlan> {
  const checked = check(planSchema, value);
  if (!checked.ok) return checked;
  const raw = checked.value;
  // Values of strands that are gone are left out rather than kept as strays.
  const ids = new Set(raw.strands.map((s) => s.id));
  const { conversation, ...rest } = raw;
  const said = withoutNothing(conversation as Conversation | undefined);
  const plan = {
    ...rest,
    ...(said === undefined ? {} : { conversation: said }),
    rungs: raw.rungs.map((rung) => ({
      ...Object.fromEntries(
        Object.entries(rung).filter(([, part]) => part !== undefined && part !== "" && !(Array.isArray(part) && part.length === 0)),
      ),
      values: Object.fromEntries(Object.entries(rung.values).filter(([id]) => ids.has(id))),
    })),
  } as LadderPlan;
  const problems = planProblems(plan);
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: plan };
}

/** A chain of behaviours of one horse. */
export const chainSchema = record({
  name: nameSchema("Chain"),
  direction: choiceSchema("Trained", CHAIN_DIRECTIONS),
  links: yup
    .array()
    .of(
      record({
        ladder: yup.string().typeError("Link: choose a ladder.").required("Link: choose a ladder."),
        rung: wholeNumberSchema("Rung of the link", 1, MOST_RUNGS),
      }),
    )
    .required("Links are missing.")
    .min(2, "A chain has at least two links.")
    .max(12, "At most 12 links."),
});
/** A chain as it is added: with the horse it is for. */
export const newChainSchema = chainSchema.concat(record({ horse: yup.string().required("Which horse it is for is missing.") }));
export type ChainInput = yup.InferType<typeof chainSchema>;
