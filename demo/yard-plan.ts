import type { CuePhase } from "@/core/cues";
import { type LadderPlan, type Method, PLAN_DEFAULTS, type Rung } from "@/core/ladder";
import type { Temper } from "@/core/learner";
import type { MasteryRule } from "@/core/mastery";
import { type BehaviourInput, EMPTY_BEHAVIOUR, type HorseInput, type RestrictionInput } from "@/core/schemas";
import { type Strand, type StrandKey, type StrandValue, strandFromCatalogue } from "@/core/strands";
import type { DemoNature } from "./know-sessions";

/** A restriction with its days counted from the day the yard is made. */
export type DemoRestriction = Omit<RestrictionInput, "from_day" | "until_day"> & {
  readonly fromDays: number | null;
  readonly untilDays: number | null;
};

/** One horse of the invented yard, with its one behaviour, its temper and its nature. */
export interface DemoHorse {
  readonly horse: HorseInput;
  readonly restrictions: readonly DemoRestriction[];
  readonly nature: DemoNature;
  /** Whether its second first look was cut off half way. */
  readonly lookCutOff: boolean;
  /** How much longer it waits to answer in a zone of the place it is worked in; 1 is as usual. */
  readonly zoneWaits: Readonly<Record<string, number>>;
  /** Chance to leave after a trial, and where it goes. */
  readonly leaves: { readonly chance: number; readonly to: string } | null;
  /** Kit used with it, by place in the list. */
  readonly kit: readonly number[];
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

/** What the people of the demo yard are used to. */
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

export const DEMO_HORSES: readonly DemoHorse[] = [
  {
    horse: {
      name: "Quillomar",
      born_day: "2016-05-11",
      birth_year: null,
      sex: "gelding",
      kind: "cob, bay",
      height_cm: 148,
      mass_kg: 462,
      history: "Came from a riding yard at six. Sure of people, unsure of anything that moves under his feet.",
      triggers: "Ground that sounds hollow, plastic in the hedge.",
      preferred_reinforcers: "Hay cobs; a scratch under the mane.",
      resting_breaths_per_min: null,
      resting_heart_per_min: null,
    },
    restrictions: [],
    nature: {
      items: { comes: 0.9, stick: 0.45, forward: 0.75, hind: 0.75, stays: 0.7, "back-lead": 0.4 },
      usual: 0.68,
      weakSide: "L",
      sideGap: 0.22,
      minds: { belly: 1.6, hock: 1.2, "hind hoof": 1.9, ears: 1.1 },
      goesTo: { people: 0.58, "a place": 0.14, "other horses": 0.12, "nothing in particular": 0.16 },
      restBreaths: 11,
      restHeart: 36,
      tension: 0.5,
    },
    lookCutOff: false,
    zoneWaits: { plate: 1.25, gate: 0.7, "by the wall": 1 },
    leaves: null,
    kit: [0, 2, 3, 4],
    behaviour: {
      ...EMPTY_BEHAVIOUR,
      name: "Stands on the weighing plate",
      finished: "Walks on by himself, all four feet on, and stays half a minute with the handler two metres off.",
      cue: "point at the plate",
      why: "His mass is read every week without a fuss.",
      movement: "forward",
      involves: [],
      prerequisites: [{ behaviour: "stand-wait", values: { stay: 2 }, maxPhase: undefined }],
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
      born_day: "2022-04-19",
      birth_year: null,
      sex: "mare",
      kind: "warmblood, chestnut",
      height_cm: 163,
      mass_kg: 548,
      history: "Bred here. Quick to answer, quicker to guess. Stiffer to the left.",
      triggers: "Being held still; other horses moving off.",
      preferred_reinforcers: "Rest, and going away from the thing. A scratch at the withers.",
      resting_breaths_per_min: 12,
      resting_heart_per_min: 40,
    },
    restrictions: [
      {
        kind: "work-minutes",
        amount: 20,
        detail: "",
        reason: "still growing, not yet five",
        given_by: "her owner",
        fromDays: -200,
        untilDays: 150,
      },
      {
        kind: "touch-off",
        amount: null,
        detail: "fetlock",
        reason: "a healing graze",
        given_by: "the farrier",
        fromDays: -6,
        untilDays: 8,
      },
    ],
    nature: {
      items: { poll: 0.8, hind: 0.75, front: 0.5, bend: 0.55, stays: 0.25, stick: 0.7, returns: 0.35 },
      usual: 0.6,
      weakSide: "L",
      sideGap: 0.3,
      minds: { flank: 2.2, girth: 1.7, thigh: 1.1, ears: 0.8 },
      goesTo: { "other horses": 0.56, people: 0.16, "a pattern": 0.1, "nothing in particular": 0.18 },
      restBreaths: 12,
      restHeart: 40,
      tension: 0.9,
    },
    lookCutOff: false,
    zoneWaits: { gate: 0.75, middle: 1, "far rail": 1.7 },
    leaves: null,
    kit: [0, 1, 3],
    behaviour: {
      ...EMPTY_BEHAVIOUR,
      name: "Side-steps to the gate",
      finished: "Six even steps to the gate off a lifted hand, either side, without pulling on the line.",
      cue: "lifted hand towards the flank",
      why: "The gate can be opened from the ground with her out of its swing.",
      involves: [],
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
      born_day: null,
      birth_year: 2004,
      sex: "gelding",
      kind: "hill pony, grey",
      height_cm: 122,
      mass_kg: 238,
      history: "Twenty years of children. Will not put a foot in water if there is a way round it.",
      triggers: "Water he cannot see the bottom of; hoses.",
      preferred_reinforcers: "Anything to eat.",
      resting_breaths_per_min: 10,
      resting_heart_per_min: 34,
    },
    restrictions: [
      {
        kind: "no-circling",
        amount: null,
        detail: "",
        reason: "old strain in the near hock",
        given_by: "the veterinarian",
        fromDays: -400,
        untilDays: null,
      },
      {
        kind: "highest-gait",
        amount: null,
        detail: "walk",
        reason: "stiff after the first frost",
        given_by: "the veterinarian",
        fromDays: -12,
        untilDays: 18,
      },
    ],
    nature: {
      items: { forward: 0.35, stays: 0.9, touch: 0.85, "back-lead": 0.6, returns: 0.5, hind: 0.5 },
      usual: 0.7,
      weakSide: "R",
      sideGap: 0.12,
      minds: { fetlock: 1.2, hoof: 1.4, "hind hoof": 1.2 },
      goesTo: { "a place": 0.52, people: 0.24, "an object": 0.08, "nothing in particular": 0.16 },
      restBreaths: 10,
      restHeart: 34,
      tension: 0.4,
    },
    lookCutOff: true,
    zoneWaits: { "water tray": 1.4, gate: 0.8, "by the wall": 1 },
    leaves: null,
    kit: [0, 2, 4],
    behaviour: {
      ...EMPTY_BEHAVIOUR,
      name: "Wades the water tray",
      finished: "Walks through the long tray on a loose line and stops in it when asked.",
      cue: "walk on",
      why: "His feet are washed and cooled without a hose fight.",
      involves: [],
    },
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
    handler: 0,
    place: 2,
    perWeek: 2,
    way: "tally",
  },
  {
    horse: {
      name: "Sorrelay Fen",
      born_day: "2012-06-02",
      birth_year: null,
      sex: "mare",
      kind: "native cross, dun",
      height_cm: 141,
      mass_kg: 405,
      history: "Runs loose with two others. Comes when she likes; leaves when she likes.",
      triggers: "Being cornered; a rope swung behind her.",
      preferred_reinforcers: "Hay cobs, then to be left alone for a moment.",
      resting_breaths_per_min: null,
      resting_heart_per_min: null,
    },
    restrictions: [],
    nature: {
      items: { comes: 0.45, stays: 0.6, returns: 0.7, stick: 0.3, touch: 0.5 },
      usual: 0.6,
      weakSide: "R",
      sideGap: 0.15,
      minds: { poll: 1.4, ears: 1.9, thigh: 1.3, tail: 1.6, "behind the tail": 2 },
      goesTo: { "other horses": 0.38, people: 0.3, "a place": 0.16, "nothing in particular": 0.16 },
      restBreaths: 13,
      restHeart: 38,
      tension: 0.6,
    },
    lookCutOff: false,
    zoneWaits: { middle: 0.8, gate: 1.1, "far rail": 1.2 },
    leaves: { chance: 0.07, to: "companion" },
    kit: [1, 4],
    behaviour: {
      ...EMPTY_BEHAVIOUR,
      name: "Comes round and stops at the shoulder",
      finished: "Free in the pen, comes round the handler and halts with her shoulder at the hand.",
      cue: "open hand at the hip",
      why: "The halter goes on without a chase.",
      involves: [],
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
