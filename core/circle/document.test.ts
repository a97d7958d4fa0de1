import { describe, expect, it } from "vitest";
import type * as yup from "yup";
import type * as z from "zod";
import { ODD_VALUES, placesOf, spoilt } from "@/tests/support/spoil";
import { check } from "../checks";
import { fromLog, toLog } from "../events/circle-log";
import { begunCircleDocument, circlePlanDocument } from "../events/circle-plan-document";
import { circlePlanSchema } from "../events/circle-plan-schema";
import { begunCircleSchema, circleSetupSchema, kitFitSchema } from "../schemas/circle";
import { USUAL_SETUP } from ".";
import { circleSetupDocument, kitFitDocument } from "./document";

/** As a form sends it and the log has it. */
const PLAN = {
  form: "circle",
  radius_m: 8,
  radius_by: "paces",
  segments: [
    { gait: "walk", side: "L", minutes: 3 },
    { gait: "trot", side: "R", minutes: 2.5 },
  ],
  transitions: { by: "time", every: 2, to: "trot" },
  obstacles: ["poles"],
  led_first: true,
  ways: "turn",
  kit: "surcingle",
  kit_stage: "both loose",
  lines: {
    step: "walking behind",
    blinkers: "on",
    traces: true,
    breeching: false,
    head: "Ida",
    traffic: "L",
    companion: { name: "Bo", side: "R", rope_slack: false, head_at: "shoulder" },
    release_checked: true,
  },
};
const SETUP = {
  ways: "turn",
  stiffer: "L",
  stiffer_first: true,
  caps: { session_minutes: 12, week_minutes: 40, week_visits: 3 },
  sounds: USUAL_SETUP.sounds,
  ramp: {
    start: { walk: 4, trot: 2, canter: 0, obstacles: false },
    goal: { walk: 6, trot: 8, canter: 2, obstacles: true },
    sessions_a_week: 2,
    radius_m: 9,
    since: "2026-03-01",
  },
  plan: PLAN,
};
const FIT = { holes_left: 4, holes_right: 4, strap_cm: 60, slack_hands: 1, next_check: "2026-05-01", note: "winter coat" };

/** The same as the program names it. */
const inside = (logged: unknown) => fromLog(logged) as object;

describe("what is kept of work on the circle", () => {
  it.each<[string, object, yup.Schema, z.ZodType]>([
    ["a plan", PLAN, circlePlanSchema, circlePlanDocument],
    ["what a session was begun with", { plan: PLAN, overrides: [{ key: "cap", why: "short" }] }, begunCircleSchema, begunCircleDocument],
    ["how a horse works", SETUP, circleSetupSchema, circleSetupDocument],
    ["how kit fits", FIT, kitFitSchema, kitFitDocument],
  ])("%s: is whatever the form gives, and nothing that the form refuses", (_, whole, form, kept) => {
    expect(kept.parse(whole)).toMatchObject(inside(whole));
    let [taken, refused] = [0, 0];
    for (const path of placesOf(whole).slice(1))
      for (const to of [...ODD_VALUES, "2026-02-30", "walk", "two even"]) {
        const value = spoilt(whole, path, to);
        const checked = check(form, value);
        const name = `${path.join(".")} = ${JSON.stringify(to)?.slice(0, 40)}`;
        if (checked.ok) {
          taken++;
          expect(kept.safeParse(JSON.parse(JSON.stringify(checked.value))).data, name).toMatchObject(inside(checked.value));
        } else if (to !== undefined) {
          // What is left out is as usual: an older program may not have known of it.
          refused++;
          expect(kept.safeParse(value).success, name).toBe(false);
        }
      }
    expect(taken).toBeGreaterThan(20);
    expect(refused).toBeGreaterThan(50);
  });

  it("is filled in where an older program left something out", () => {
    expect(circleSetupDocument.parse({})).toEqual(USUAL_SETUP);
    const { lines: _, kit_stage: __, ways: ___, ...older } = PLAN;
    expect(circlePlanDocument.parse(older)).toEqual(inside({ ...PLAN, lines: null, kit_stage: null, ways: "both" }));
  });

  it("goes under the names of the log and comes back under the program's, nothing lost on the way", () => {
    for (const logged of [PLAN, SETUP, FIT]) {
      const text = JSON.stringify(inside(logged));
      // Not one name of the log is left inside, at any depth, and every one is there again outside.
      expect([...text.matchAll(/"([a-z]+_[a-z_]+)":/g)].map(([, name]) => name)).toEqual([]);
      expect(toLog(inside(logged))).toEqual(logged);
    }
    expect(inside(PLAN)).toMatchObject({ radiusMetres: 8, ledFirst: true, lines: { companion: { ropeSlack: false } } });
    // What has the program's names already stays as it is.
    expect(inside(inside(SETUP))).toEqual(inside(SETUP));
  });
});
