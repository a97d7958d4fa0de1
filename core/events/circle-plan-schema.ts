import * as yup from "yup";
import { record } from "../checks/common";
import {
  CIRCLE_FORMS,
  CIRCLE_GAITS,
  type CircleForm,
  type CircleGait,
  KIT_STAGES,
  type KitStage,
  MOST_SEGMENTS,
  RADIUS_BY,
  TRANSITIONS_BY,
  WAYS,
  type Ways,
} from "./circle-plan";

const line = (most = 80) =>
  yup
    .string()
    .max(most, `\${path}: at most ${most} characters.`)
    .test("line", "${path}: one line of plain text, please.", (value) => value == null || !/\p{Cc}/u.test(value));

export const circlePlanSchema = record({
  form: yup.string<CircleForm>().oneOf(CIRCLE_FORMS, "form: circle, pen or lines.").required("form is missing."),
  radius_m: yup.number().min(2, "Radius: 2 m or more.").max(30, "Radius: 30 m at most.").nullable().default(null),
  radius_by: yup.string<(typeof RADIUS_BY)[number]>().oneOf(RADIUS_BY, "radius_by: line, paces or metres.").default("line"),
  segments: yup
    .array()
    .of(
      record({
        gait: yup.string<CircleGait>().oneOf(CIRCLE_GAITS, "Gait: stand, walk, trot or canter.").required("Gait is missing."),
        side: yup.string<"L" | "R">().oneOf(["L", "R"], "Way: left or right.").required("Way is missing."),
        minutes: yup.number().required("Minutes are missing.").min(0.25, "Minutes: a quarter or more.").max(60, "Minutes: 60 at most."),
      }),
    )
    .min(1, "One segment at least.")
    .max(MOST_SEGMENTS, `At most ${MOST_SEGMENTS} segments.`)
    .required("segments are missing."),
  transitions: record({
    by: yup.string<(typeof TRANSITIONS_BY)[number]>().oneOf(TRANSITIONS_BY, "by: will, time, quarter or lap.").default("will"),
    every: yup.number().min(0.25, "Every: 0.25 or more.").max(60, "Every: 60 at most.").nullable().default(null),
    to: yup.string<CircleGait>().oneOf(CIRCLE_GAITS, "to: stand, walk, trot or canter.").nullable().default(null),
  }).default({ by: "will", every: null, to: null }),
  obstacles: yup.array().of(line().required()).max(8, "At most 8 obstacles.").default([]),
  led_first: yup.boolean().default(false),
  ways: yup.string<Ways>().oneOf(WAYS, "ways: both or turn.").default("both"),
  kit: yup.string().max(100).nullable().default(null),
  kit_stage: yup.string<KitStage>().oneOf(KIT_STAGES, "Stage: not one of the stages.").nullable().default(null),
  lines: record({
    step: line().required("Step is missing."),
    blinkers: yup.string<"on" | "off" | "none">().oneOf(["on", "off", "none"]).default("none"),
    traces: yup.boolean().default(false),
    breeching: yup.boolean().default(false),
    head: line().default(""),
    traffic: yup.string<"L" | "R" | "none">().oneOf(["L", "R", "none"]).default("none"),
    companion: record({
      name: line().required("Companion: a name is needed."),
      side: yup.string<"L" | "R">().oneOf(["L", "R"]).required(),
      rope_slack: yup.boolean().default(true),
      head_at: line().default(""),
    })
      .nullable()
      .default(null),
    release_checked: yup.boolean().default(false),
  })
    .nullable()
    .default(null),
}).test("radius", "Radius: it is needed on a circle.", (value, context) =>
  value?.form === "circle" && value.radius_m == null
    ? context.createError({ path: "radius_m", message: "Radius: it is needed on a circle." })
    : true,
);

export const circleOverridesSchema = yup
  .array()
  .of(record({ key: yup.string().max(40).required(), why: line(200).required("A word of why is needed.") }))
  .max(12);
