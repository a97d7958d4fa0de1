import { EMPTY_BEHAVIOUR } from "@/core/schemas";
import { type DemoHorse, HANDLED, over, phase, plan, strand } from "../horse";

/** Does it for one handler and not for the other. */
export const HARROWMINT: DemoHorse = {
  draw: 200,
  horse: {
    name: "Harrowmint",
    born_day: "2011-05-30",
    birth_year: null,
    sex: "mare",
    kind: "show pony type, palomino",
    height_cm: 132,
    mass_kg: 310,
    history: "Belongs to Dorrel; does it all for Wenna.",
    triggers: "A voice that is raised; two people telling her things at once.",
    preferred_reinforcers: "To be told what next, soon. Hay cobs.",
    resting_breaths_per_min: 12,
    resting_heart_per_min: 38,
  },
  restrictions: [],
  nature: {
    items: { stays: 0.5, "back-lead": 0.8, hind: 0.8, returns: 0.4 },
    usual: 0.7,
    weakSide: "L",
    sideGap: 0.1,
    minds: { flank: 0.9, tail: 1.2 },
    goesTo: { people: 0.5, "a place": 0.1, "other horses": 0.22, "nothing in particular": 0.18 },
    restBreaths: 12,
    restHeart: 38,
    tension: 0.5,
  },
  lookCutOff: false,
  zoneWaits: { gate: 0.8, middle: 1 },
  kit: [0, 1, 4],
  behaviour: {
    ...EMPTY_BEHAVIOUR,
    name: "Stands where she is left",
    finished: "Stands with the line down while the handler walks off and comes back.",
    cue: "flat hand, then still",
    why: "Gates, grooming and the mounting block.",
    movement: "stand",
    template: "stand-wait",
    involves: [],
  },
  dates: [],
  plan: plan(
    "combined",
    [
      strand("stay"),
      strand("handler-place", { levels: ["at the head", "at the shoulder", "two steps off"] }),
      strand("handler-motion", { levels: ["still", "walking", "leaving"] }),
      strand("ease"),
    ],
    [
      [1, "at the head", "still", "unsettled"],
      [2, "at the head", "still", "unsettled"],
      [4, "at the head", "still", "unsettled"],
      [4, "at the shoulder", "still", "unsettled"],
      [8, "at the shoulder", "still", "unsettled"],
      [8, "two steps off", "still", "unsettled"],
      [8, "two steps off", "walking", "unsettled"],
      [15, "two steps off", "walking", "unsettled"],
      [15, "two steps off", "leaving", "unsettled"],
    ],
    [phase("stop and breathe", "body", 2), phase("stand", "voice", 3), phase("feel back", "lead", 4)],
    "stay",
  ),
  place: 0,
  way: "tally",
  lookAt: "Does it for Wenna and not for Dorrel: next start and Review, person by person.",
  story: {
    perWeek: 3,
    rests: [],
    blocks: [3, 3],
    handlerOf: (session) => (session % 5 < 3 ? 0 : 1),
    temperOf: (handler) =>
      handler === 0
        ? { ...HANDLED, floor: 0.5, learning: 0.04, kept: 0.68, meanWaitSeconds: 1.4 }
        : { ...HANDLED, floor: 0.42, learning: 0.035, unlearning: 0.035, kept: 0.55, meanWaitSeconds: 2.6, tension: 0.7 },
    lagSeconds: over(0.45, 0.4),
    takes: 0.85,
    leaves: null,
    recovery: () => ({ above: 5, halfMinutes: 1.8 }),
    notes: [
      {
        from: 0,
        better: ["Stood like a rock.", "Walked round her, nothing moved.", "Waited for the word to go."],
        next: ["Dorrel: say it once, then be still.", "Both of us in the pen, one asks.", "She watches whoever talks. Talk less."],
      },
      {
        from: 50,
        better: ["With Dorrel four in a row, short ones.", "Stood while I went for the brush."],
        next: ["Dorrel a rung lower, and ends there.", "Change over in the middle of a session."],
      },
    ],
  },
};
