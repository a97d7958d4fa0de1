import * as yup from "yup";
import { record } from "../checks/common";
import { fieldsOf, isOneOf } from "../typed";
import { BLOCKS } from "./orders";
import { COUNTED, type Counted } from "./try-both";
import { WAY_PART_FACTS, WAY_PARTS, type WayPart } from "./ways";

const words = (label: string, most: number) => yup.string().trim().max(most, `${label}: at most ${most} characters.`);
const whole = (label: string, least: number, most: number) =>
  yup
    .number()
    .typeError(`${label}: a number is needed.`)
    .integer(`${label}: a whole number is needed.`)
    .min(least, `${label}: ${least} or more.`)
    .max(most, `${label}: ${most} at most.`)
    .required(`${label}: a number is needed.`);

/** Whether a value is one of what the two may differ in; anything goes where they differ in nothing the pads know. */
function chosen(value: string | undefined, { parent }: yup.TestContext): boolean {
  const { differ } = fieldsOf(parent);
  if (!isOneOf(WAY_PARTS, differ)) return true;
  const { values } = WAY_PART_FACTS[differ];
  return values === null ? (value ?? "") !== "" : values.includes(value ?? "");
}

/** What an experiment is begun with. */
export const tryBothSchema = record({
  ladder: yup.string().required("Behaviour: choose one."),
  rung: whole("Rung", 1, 1000),
  question: words("Question", 200).default(""),
  way_a: words("A", 100).required("A: say what it is."),
  way_b: words("B", 100)
    .required("B: say what it is.")
    .test("two-ways", "B: another than A.", (value, { parent }) => value?.toLowerCase() !== String(fieldsOf(parent).way_a).toLowerCase()),
  // What the two differ in, where the pads and the log are to follow it.
  differ: yup
    .string<WayPart | "">()
    .oneOf(["", ...WAY_PARTS], "What they differ in: choose one.")
    .default(""),
  value_a: words("A", 100).default("").test("chosen", "A: choose one.", chosen),
  value_b: words("B", 100)
    .default("")
    .test("chosen", "B: choose one.", chosen)
    .test("two-values", "B: another than A.", (value, { parent }) => fieldsOf(parent).differ === "" || value !== fieldsOf(parent).value_a),
  counts: yup.string<Counted>().oneOf(COUNTED, "What counts: choose one.").required("What counts: choose one."),
  blocks: whole("Blocks", BLOCKS.least, BLOCKS.most).test(
    "even",
    "Blocks: an even number, so that each is worked as often.",
    (n) => (n ?? 0) % 2 === 0,
  ),
  most_alike: whole("Running", 1, 3),
  asks_each: whole("Asks a block", 3, 40),
}).required();

export type TryBothInput = yup.InferType<typeof tryBothSchema>;

/** Why an experiment is ended before its last block. */
export const endTrySchema = record({ why: words("Why", 300).required("Why: say it in a word.") }).required();
