import type { CuePhase } from "@/core/cues";
import type { LadderPlan, Method, Rung } from "@/core/ladder";
import type { Temper } from "@/core/learner";
import { DEFAULT_MASTERY_RULE, type MasteryRule } from "@/core/mastery";
import type { BehaviourInput, HorseInput, PersonInput, PlaceInput } from "@/core/schemas";
import { type Strand, type StrandKey, type StrandValue, strandFromCatalogue } from "@/core/strands";

/** One horse of the invented yard, with its one behaviour and its temper. */
export interface DemoHorse {
  readonly horse: HorseInput;
  readonly behaviour: BehaviourInput;
  readonly plan: LadderPlan;
  readonly temper: Temper;
  readonly handler: number;
  readonly place: number;
  /** Sessions a week, on average. */
  readonly perWeek: number;
  readonly way: "timed" | "tally";
}

const strand = (key: StrandKey, changes: Partial<Strand> = {}): Strand => ({ ...strandFromCatalogue(key, key), ...changes });

const phase = (label: string, kind: CuePhase["kind"], dwellSeconds: number, profile: CuePhase["profile"] = "steady"): CuePhase => ({
  label,
  kind,
  profile,
  dwellSeconds,
  pulsesPerMinute: profile === "pulse" ? 80 : null,
});

function plan(
  method: Method,
  strands: readonly Strand[],
  rows: readonly (readonly StrandValue[])[],
  phases: readonly CuePhase[],
  workingStrandId: string | null,
  mastery: MasteryRule = DEFAULT_MASTERY_RULE,
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
    offers: "reinforce",
    workingStrandId,
    plannedRepetitions: 8,
  };
}

export const DEMO_PEOPLE: readonly PersonInput[] = [
  { name: "Wenna Orrick", role: "handler" },
  { name: "Dorrel Hask", role: "handler" },
  { name: "Ilse Tamworth-Quay", role: "helper" },
];

export const DEMO_PLACES: readonly PlaceInput[] = [
  { name: "Slate pen", shape: "round", length_m: 18, width_m: 18 },
  { name: "Long paddock", shape: "rectangle", length_m: 60, width_m: 25 },
  { name: "Wash yard", shape: "square", length_m: 10, width_m: 10 },
];

export const DEMO_HORSES: readonly DemoHorse[] = [
  {
    horse: {
      name: "Quillomar",
      birth_year: 2016,
      sex: "gelding",
      kind: "cob, bay",
      height_cm: 148,
      mass_kg: 462,
      history: "Came from a riding yard at six. Sure of people, unsure of anything that moves under his feet.",
      restrictions: "",
    },
    behaviour: {
      name: "Stands on the weighing plate",
      finished: "Walks on by himself, all four feet on, and stays half a minute with the handler two metres off.",
      cue: "point at the plate",
      why: "His mass is read every week without a fuss.",
    },
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
    handler: 0,
    place: 2,
    perWeek: 3,
    way: "timed",
  },
  {
    horse: {
      name: "Ostrevine",
      birth_year: 2021,
      sex: "mare",
      kind: "warmblood, chestnut",
      height_cm: 163,
      mass_kg: 548,
      history: "Bred here. Quick to answer, quicker to guess. Stiffer to the left.",
      restrictions: "Short sessions; not yet six.",
    },
    behaviour: {
      name: "Side-steps to the gate",
      finished: "Six even steps to the gate off a lifted hand, either side, without pulling on the line.",
      cue: "lifted hand towards the flank",
      why: "The gate can be opened from the ground with her out of its swing.",
    },
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
    handler: 1,
    place: 0,
    perWeek: 4,
    way: "timed",
  },
  {
    horse: {
      name: "Brackwidden",
      birth_year: 2004,
      sex: "gelding",
      kind: "hill pony, grey",
      height_cm: 122,
      mass_kg: 238,
      history: "Twenty years of children. Will not put a foot in water if there is a way round it.",
      restrictions: "No circling: old strain in the near hock, on the veterinarian's advice.",
    },
    behaviour: {
      name: "Wades the water tray",
      finished: "Walks through the long tray on a loose line and stops in it when asked.",
      cue: "walk on",
      why: "His feet are washed and cooled without a hose fight.",
    },
    plan: plan(
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
    handler: 0,
    place: 2,
    perWeek: 2,
    way: "tally",
  },
  {
    horse: {
      name: "Sorrelay Fen",
      birth_year: 2012,
      sex: "mare",
      kind: "native cross, dun",
      height_cm: 141,
      mass_kg: 405,
      history: "Runs loose with two others. Comes when she likes; leaves when she likes.",
      restrictions: "",
    },
    behaviour: {
      name: "Comes round and stops at the shoulder",
      finished: "Free in the pen, comes round the handler and halts with her shoulder at the hand.",
      cue: "open hand at the hip",
      why: "The halter goes on without a chase.",
    },
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
    handler: 1,
    place: 0,
    perWeek: 3,
    way: "tally",
  },
];
