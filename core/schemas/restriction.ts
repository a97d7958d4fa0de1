import * as yup from "yup";
import { choiceSchema, optionalDaySchema, optionalNumberSchema, record, textSchema } from "../checks/common";
import { TOUCH_ZONES } from "../know/touch-map";
import { isOneOf } from "../typed";
import {
  GAITS_SLOWEST_FIRST,
  isLegZone,
  LIMBS,
  RESTRICTION_FACTS,
  RESTRICTION_KINDS,
  type RestrictionDetail,
} from "../welfare/restrictions";

const factsOf = (kind: unknown) => (isOneOf(RESTRICTION_KINDS, kind) ? RESTRICTION_FACTS[kind] : null);

/** What the detail of a restriction may be, by what kind of detail it is; left out where there is none to choose. */
export const RESTRICTION_DETAILS: Readonly<Partial<Record<RestrictionDetail, readonly string[]>>> = {
  gait: GAITS_SLOWEST_FIRST,
  side: ["left", "right"],
  "touch-zone": TOUCH_ZONES,
};

/**
 * Which legs or sides a zone can be on: a fore or a hind leg, or a side of the body.
 * @example limbsOf("shoulder") // ["left", "right"]
 */
export const limbsOf = (zone: string): readonly string[] =>
  LIMBS.filter((limb) =>
    !isLegZone(zone) ? limb === "left" || limb === "right" : limb.endsWith(zone.startsWith("hind") || zone === "hock" ? "hind" : "fore"),
  );
const limbFits = (zone: string, limb: string): boolean => limb === "" || limbsOf(zone).includes(limb);

/** A restriction as it is added and edited; what it needs beside its kind follows from the kind. */
export const restrictionSchema = record({
  kind: choiceSchema("Restriction", RESTRICTION_KINDS),
  amount: optionalNumberSchema("Amount", 0, 500, "").when("kind", ([kind], schema) => {
    const facts = factsOf(kind);
    if (facts === null || facts.detail !== "amount") return schema.transform(() => null);
    const [least, most] = facts.range;
    const unit = facts.unit === "" ? "" : ` ${facts.unit}`;
    const words = `Amount: from ${least} to ${most}${unit}.`;
    return schema
      .min(least, words)
      .max(most, words)
      .test("there", `Amount is missing: from ${least} to ${most}${unit}.`, (value) => value != null);
  }),
  detail: textSchema("Detail", 40).when("kind", ([kind], schema) => {
    const choices = RESTRICTION_DETAILS[factsOf(kind)?.detail ?? "none"];
    return choices === undefined ? schema.transform(() => "") : schema.oneOf([...choices], "Choose which one it is about.");
  }),
  // Which leg, or side of the body, may not be touched; empty means all of them.
  limb: yup
    .string()
    .transform((value) => value ?? "")
    .oneOf(["", ...LIMBS], "Choose which leg or side.")
    .default("")
    .when(["kind", "detail"], ([kind, detail], schema) =>
      kind !== "touch-off"
        ? schema.transform(() => "")
        : schema.test("fits", "That zone is not on this leg.", (value) => limbFits(String(detail ?? ""), value ?? "")),
    ),
  // Whether the horse may carry that leg while the others are handled; empty where nobody said.
  carries_others: yup
    .string()
    .transform((value) => value ?? "")
    .oneOf(["", "yes", "no"], "Yes, no, or not said.")
    .default("")
    .when(["kind", "detail", "limb"], ([kind, detail, limb], schema) =>
      kind === "touch-off" && isLegZone(String(detail ?? "")) && limb !== "" ? schema : schema.transform(() => ""),
    ),
  reason: textSchema("Reason", 500).when("kind", ([kind], schema) =>
    kind === "other"
      ? schema.required("Say what the advice is.")
      : schema.test(
          "said",
          "Say why, or whose advice it is.",
          (value, context) =>
            (value ?? "") !== "" || (typeof context.parent.given_by === "string" && context.parent.given_by.trim() !== ""),
        ),
  ),
  given_by: textSchema("Advice of", 120),
  from_day: optionalDaySchema("From"),
  until_day: optionalDaySchema("Until").test("after-from", "Until: not before the first day.", (value, context) => {
    const from: unknown = context.parent.from_day;
    return value == null || typeof from !== "string" || value >= from;
  }),
}).required();

type Restricted = yup.InferType<typeof restrictionSchema>;
/** What an older form does not send of a touch zone means every leg and both sides. */
export type RestrictionInput = Omit<Restricted, "limb" | "carries_others"> & Partial<Pick<Restricted, "limb" | "carries_others">>;

/** A restriction that ends before its last day, or has none, with the reason; or one that holds again. */
export const restrictionEndSchema = record({
  ended: yup.boolean().required("Whether it ends is missing."),
  why: textSchema("Why it ends", 500).when("ended", ([ended], schema) => (ended ? schema.required("Say why it ends.") : schema)),
}).required();
