import { EMPTY_BEHAVIOUR } from "@/core/schemas";
import { type DemoHorse, HANDLED, over, phase, plan, strand } from "../horse";

const ROWS = [
  ["sniffs it", 1, "at the head", "unsettled"],
  ["a forefoot on", 1, "at the head", "unsettled"],
  ["both fores on", 1, "at the head", "unsettled"],
  ["all four on", 1, "at the head", "unsettled"],
  ["all four on", 4, "at the head", "unsettled"],
  ["all four on", 8, "at the head", "unsettled"],
  ["all four on", 8, "at the shoulder", "unsettled"],
  ["all four on", 15, "at the shoulder", "unsettled"],
  ["all four on", 15, "2 m off", "unsettled"],
  ["all four on", 15, "2 m off", "soft"],
] as const;

const plate = (rows: readonly (readonly (string | number)[])[]) =>
  plan(
    "combined",
    [
      strand("form", { name: "feet on", levels: ["sniffs it", "a forefoot on", "both fores on", "all four on"] }),
      strand("stay"),
      strand("handler-place", { levels: ["at the head", "at the shoulder", "2 m off"] }),
      strand("ease"),
    ],
    rows,
    [phase("look", "body", 3), phase("point", "point", 3), phase("line", "lead", 4), phase("tap", "tap", 4, "pulse")],
    "stay",
  );

/** As it was planned: from one second to four, a step his handler kept, "he stands anyway". */
const PLATE = {
  ...plate(ROWS),
  rungs: plate(ROWS).rungs.map((rung, i) => (i === 4 ? { ...rung, kept: "he stands anyway once he is on" } : rung)),
};
/** As the split made it: two seconds in between. */
const PLATE_SPLIT = plate([...ROWS.slice(0, 4), ["all four on", 2, "at the head", "unsettled"], ...ROWS.slice(4)]);

/** A stall that a split solved. */
export const QUILLOMAR: DemoHorse = {
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
  dates: [{ kind: "trim", inDays: 5, everyWeeks: 7, note: "" }],
  plan: PLATE,
  place: 2,
  way: "timed",
  lookAt: "Stood still at one rung for weeks until it was split: the rung chart on its ladder.",
  story: {
    perWeek: 3,
    rests: [[44, 48]],
    blocks: [3, 4],
    handlerOf: () => 0,
    temperOf: () => ({ ...HANDLED, floor: 0.46, learning: 0.045, kept: 0.68, meanWaitSeconds: 2.2 }),
    lagSeconds: over(0.5, 0.36),
    takes: 0.85,
    leaves: null,
    split: { after: 2, plan: PLATE_SPLIT },
    // Four seconds right after one are too far for him; with two in between it is two steps.
    reach: (rung, version) => (version === 1 && rung === 5 ? 0.58 : 1),
    recovery: () => ({ above: 8, halfMinutes: 2 }),
    notes: [
      {
        from: 0,
        better: ["Walked up by himself the second time.", "Less looking at the edge.", "Ears forward at the plate today."],
        next: ["Come back to the plate after the walk, not before.", "Same again, dry ground."],
      },
      {
        from: 24,
        better: ["One stay held, then off again.", "He gets on, that is not it: it is the staying."],
        next: [
          "Off the far side again as I wait. Shorter.",
          "Same place, same answer. Ask the app what it says.",
          "Three weeks on this. Smaller piece?",
        ],
      },
      {
        from: 52,
        better: ["Two seconds is nothing to him. It was the step.", "Stood while I counted.", "Let me walk to his hip."],
        next: ["Hay cob later, at the end of the stay.", "Try the other handler's side."],
      },
    ],
  },
};
