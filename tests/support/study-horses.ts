import type { CuePhase } from "@/core/cues";
import { type LadderPlan, type Method, PLAN_DEFAULTS, type Rung } from "@/core/ladder";
import type { Temper } from "@/core/learner";
import type { MasteryRule } from "@/core/mastery";
import { type Strand, type StrandKey, type StrandValue, strandFromCatalogue } from "@/core/strands";

const strand = (key: StrandKey, changes: Partial<Strand> = {}): Strand => ({ ...strandFromCatalogue(key, key), ...changes });

const phase = (label: string, kind: CuePhase["kind"], dwellSeconds: number, profile: CuePhase["profile"] = "steady"): CuePhase => ({
  label,
  kind,
  profile,
  dwellSeconds,
  pulsesPerMinute: profile === "pulse" ? 80 : null,
});

/** Their rule. */
const EIGHT_OF_TEN: MasteryRule = { kind: "share", met: 8, of: 10, window: "moving" };

function plan(
  method: Method,
  strands: readonly Strand[],
  rows: readonly (readonly StrandValue[])[],
  phases: readonly CuePhase[],
  workingStrandId: string | null,
  mastery: MasteryRule = EIGHT_OF_TEN,
): LadderPlan {
  const rungs: Rung[] = rows.map((row) => ({ values: Object.fromEntries(strands.map((s, i) => [s.id, row[i] as StrandValue])) }));
  return {
    method,
    strands,
    rungs,
    phases,
    maximumSeconds: 20,
    mastery,
    schedule: { kind: "every" },
    ...PLAN_DEFAULTS,
    offers: "reinforce",
    workingStrandId,
    plannedRepetitions: 8,
  };
}

/** Four horses the steadiness of the word is measured on, always the same ones, so that figures of different versions compare. */
export const STUDY_HORSES: readonly { readonly plan: LadderPlan; readonly temper: Temper }[] = [
  {
    plan: plan(
      "combined",
      [
        strand("form", { name: "feet on", levels: ["two feet on", "three feet on", "all four feet on"] }),
        strand("stay"),
        strand("handler-place", { levels: ["at the head", "at the shoulder", "2 m off"] }),
        strand("ease"),
      ],
      [
        ["two feet on", 1, "at the head", "unsettled"],
        ["three feet on", 1, "at the head", "unsettled"],
        ["all four feet on", 1, "at the head", "unsettled"],
        ["all four feet on", 2, "at the head", "unsettled"],
        ["all four feet on", 4, "at the head", "unsettled"],
        ["all four feet on", 4, "at the shoulder", "unsettled"],
        ["all four feet on", 8, "at the shoulder", "unsettled"],
        ["all four feet on", 8, "2 m off", "unsettled"],
      ],
      [phase("look", "body", 3), phase("point", "point", 3), phase("line", "lead", 4), phase("tap", "tap", 4, "pulse")],
      "stay",
    ),
    temper: {
      floor: 0.4,
      learning: 0.024,
      unlearning: 0.03,
      kept: 0.72,
      forgettingDays: 30,
      weakSide: "L",
      weakLearning: 0.75,
      meanWaitSeconds: 2.2,
      freshTrials: 22,
      tension: 0.35,
      stallsAtRung: 5,
      stallTrials: 70,
    },
  },
  {
    plan: plan(
      "pressure-release",
      [strand("steps"), strand("lightness"), strand("side"), strand("latency", { name: "answers within" })],
      [
        [1, 4, "right", 12],
        [1, 4, "both", 12],
        [2, 4, "both", 12],
        [2, 3, "both", 12],
        [3, 3, "both", 12],
        [4, 3, "both", 12],
        [4, 2, "both", 12],
        [6, 2, "both", 12],
      ],
      [
        phase("breath", "body", 2.5),
        phase("lifted hand", "point", 2.5),
        phase("waved line", "wave", 3, "rising"),
        phase("stick on the ribs", "tap", 4, "pulse"),
      ],
      "steps",
    ),
    temper: {
      floor: 0.4,
      learning: 0.034,
      unlearning: 0.026,
      kept: 0.7,
      forgettingDays: 40,
      weakSide: "L",
      weakLearning: 0.6,
      meanWaitSeconds: 1.6,
      freshTrials: 20,
      tension: 0.5,
      stallsAtRung: null,
      stallTrials: 0,
    },
  },
  {
    plan: {
      ...plan(
        "marker-food",
        [
          strand("form", { name: "feet wet", levels: ["looks at the tray", "one foot in", "both fronts in", "all four in"] }),
          strand("stay"),
          strand("tether", { levels: ["short lead", "draped line"] }),
          strand("ease"),
        ],
        [
          ["looks at the tray", 0, "short lead", "unsettled"],
          ["one foot in", 0, "short lead", "unsettled"],
          ["both fronts in", 0, "short lead", "unsettled"],
          ["both fronts in", 1, "short lead", "unsettled"],
          ["all four in", 1, "short lead", "unsettled"],
          ["all four in", 2, "short lead", "unsettled"],
          ["all four in", 2, "draped line", "unsettled"],
        ],
        [phase("walk on", "voice", 3), phase("look ahead", "body", 4), phase("food target", "food target", 5)],
        null,
        { kind: "run", length: 5 },
      ),
      conversation: {
        whenWrong: {
          did: "backed out",
          met: "backed away farther",
          plan: "back it two steps more without a pull, stand, then ask for one foot again",
        },
        ownTimes: ["looks"],
        pinned: [
          { name: "paws", class: "count" },
          { name: "eyes on me", class: "count" },
        ],
        acts: ["steps", "good feel"],
        rig: [
          { text: "line folded, not wrapped", when: "start" },
          { text: "rope turned round for this side", when: "side" },
        ],
      },
    },
    temper: {
      floor: 0.36,
      learning: 0.032,
      unlearning: 0.025,
      kept: 0.75,
      forgettingDays: 45,
      weakSide: "R",
      weakLearning: 0.9,
      meanWaitSeconds: 3,
      freshTrials: 16,
      tension: 0.3,
      stallsAtRung: 3,
      stallTrials: 60,
    },
  },
  {
    plan: plan(
      "combined",
      [
        strand("form", { levels: ["turns an ear", "turns her head", "walks up", "stops at the shoulder"] }),
        strand("reach", { name: "comes from" }),
        strand("lightness"),
        strand("ease"),
      ],
      [
        ["turns an ear", 1, 3, "unsettled"],
        ["turns her head", 1, 3, "unsettled"],
        ["walks up", 1, 3, "unsettled"],
        ["stops at the shoulder", 1, 3, "unsettled"],
        ["stops at the shoulder", 2, 3, "unsettled"],
        ["stops at the shoulder", 2, 3, "soft"],
        ["stops at the shoulder", 4, 3, "soft"],
        ["stops at the shoulder", 4, 2, "soft"],
      ],
      [phase("open hand", "body", 3), phase("step back", "body", 3), phase("voice", "voice", 4)],
      "reach",
      { kind: "posterior", target: 0.7, confidence: 0.8, least: 6 },
    ),
    temper: {
      floor: 0.44,
      learning: 0.05,
      unlearning: 0.035,
      kept: 0.74,
      forgettingDays: 35,
      weakSide: "R",
      weakLearning: 0.85,
      meanWaitSeconds: 1.9,
      freshTrials: 24,
      tension: 0.2,
      stallsAtRung: null,
      stallTrials: 0,
    },
  },
];
