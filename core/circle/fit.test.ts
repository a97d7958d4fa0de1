import { describe, expect, it } from "vitest";
import { planToLog } from "@/core/events/circle-log";
import { PLAN } from "@/tests/support/circle-plan";
import { SessionWriter } from "@/tests/support/session-writer";
import type { CircleSegment, KitStage } from "../events/circle-plan";
import { reduceSession } from "../record";
import { circleDigestOf } from "./digest";
import { FIT_CHECKS, kitPlace, wornAt } from "./fit";

const TROT: readonly CircleSegment[] = [
  { gait: "walk", side: "L", minutes: 4 },
  { gait: "trot", side: "L", minutes: 1 },
];
const WALK: readonly CircleSegment[] = [{ gait: "walk", side: "L", minutes: 5 }];
const STAGES = ["one part", "the other part", "both loose", "led in hand", "on the circle"] as const;

/** A session in kit as the circle's recorder logs it: looked over, worked, ended, walked down, said. */
function inKit(
  stage: KitStage,
  {
    ticked = FIT_CHECKS,
    looked = true,
    segments = WALK,
    cool = "cooled",
    easy = true,
    danger = false,
  }: {
    ticked?: readonly string[];
    looked?: boolean;
    segments?: readonly CircleSegment[];
    cool?: "cooled" | "left" | "open";
    easy?: boolean | null;
    danger?: boolean;
  } = {},
) {
  const w = new SessionWriter();
  if (looked) w.add(0, "preflight", { checks: [...ticked], open: FIT_CHECKS.filter((one) => !ticked.includes(one)) });
  w.block(1, { behaviour: "Circle work", ladder: undefined, side: "" });
  w.add(1, "circle.start", { plan: planToLog({ ...PLAN, kit: "k", kitStage: stage, segments }), overrides: [] });
  if (danger) w.add(60, "signal", { name: "bucks", class: "danger" });
  w.add(301, "session.end");
  w.add(301, "cool", { did: "starts" });
  if (cool !== "open") w.add(900, "cool", { did: cool, ...(cool === "left" ? { reason: "rain" } : { bright: true }) });
  if (easy !== null) w.add(905, "circle.rated", { easy });
  const digest = circleDigestOf(reduceSession(w.events, { offsetMsByLoad: new Map() }));
  if (digest === null) throw new Error("no circle");
  return digest;
}

describe("kit by stages", () => {
  it("goes on by one good session, and stays on the circle once it is there", () => {
    expect(kitPlace([])).toMatchObject({ stage: "one part", worn: false });
    expect(kitPlace([inKit("one part")])).toMatchObject({ stage: "the other part", worn: false });
    expect(kitPlace(STAGES.slice(0, 4).map((stage) => inKit(stage)))).toMatchObject({ stage: "on the circle", worn: false });
    const through = kitPlace(STAGES.map((stage) => inKit(stage)));
    expect(through).toMatchObject({ stage: "on the circle", worn: true });
    expect([wornAt(null, null), wornAt(through, null), wornAt(through, "both loose"), wornAt(kitPlace([]), null)]).toEqual([
      true,
      true,
      false,
      false,
    ]);
  });
  it.each([
    ["danger", { danger: true }, "The last time was poor"],
    ["a walk at the end that was not easy", { easy: false }, "The last time was poor"],
    ["a check that was not ticked", { ticked: FIT_CHECKS.slice(1) }, `Not looked at before: ${FIT_CHECKS[0]}`],
    ["nothing looked at", { looked: false }, "Nobody looked over the fit"],
    ["trot", { segments: TROT }, "The last time was not at walk alone"],
    ["standing alone", { segments: [{ gait: "stand", side: "L", minutes: 5 }] as const }, "It has not walked in it yet"],
    ["a cool-down given up", { cool: "left" as const }, "The cool-down was closed before breath was down"],
    ["a cool-down left open", { cool: "open" as const }, "The cool-down was not closed"],
    ["nothing said of the walk at the end", { easy: null }, "Nobody said whether the walk at the end was easy"],
  ])("repeats the stage after %s, and holds it for new still", (_, how, why) => {
    expect(kitPlace([inKit("one part", how)])).toEqual({ stage: "one part", worn: false, reason: `${why}: the same stage again.` });
  });
  it("lets a horse trot in what it wears well on the circle, and holds a poor day there against the next only", () => {
    const trot = inKit("on the circle", { segments: TROT });
    const well = STAGES.map((stage) => inKit(stage));
    expect(kitPlace([...well, trot])).toMatchObject({ worn: true, reason: "It has been through every stage." });
    expect(kitPlace([...well.slice(0, 4), trot])).toMatchObject({ stage: "on the circle", worn: false });
    expect(kitPlace([...well, inKit("on the circle", { danger: true })])).toMatchObject({
      worn: true,
      reason: expect.stringMatching(/poor/),
    });
  });
});
