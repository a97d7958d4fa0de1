import type { StrandKey } from "../strands";
import type { WayKey, Ways } from "./way-values";

/**
 * Where good trainers disagree. Each is a setting of the ladder with a short,
 * fair note of both reasons; none is a fault. What a choice changes is said
 * with it, and is done by the parts named there.
 */
export interface WayChoice {
  readonly key: WayKey;
  readonly question: string;
  readonly options: readonly [WayOption, WayOption];
  /** Strands that make the question one of this ladder; empty where every ladder has it. */
  readonly about: readonly StrandKey[];
  /** Shown only where the behaviour involves this. */
  readonly onlyWith?: "free" | "circling";
}

export interface WayOption {
  readonly value: string;
  readonly name: string;
  readonly reason: string;
  readonly changes: string;
  readonly cautions?: readonly string[];
}

export const WAYS: readonly WayChoice[] = [
  {
    key: "pressure",
    question: "The ask while the horse thinks",
    about: [],
    options: [
      {
        value: "steady",
        name: "steady",
        reason: "The same feel until the answer lets the horse look for it without hurry; it learns that only its own answer ends it.",
        changes: "Every phase of the ask is held level.",
      },
      {
        value: "rising",
        name: "rising",
        reason: "A clear, even climb keeps the light ask meaningful and the waiting short; the horse learns to answer before it grows.",
        changes: "Every phase of the ask rises over its time.",
      },
    ],
  },
  {
    key: "directions",
    question: "Left and right",
    about: ["side", "circle"],
    options: [
      {
        value: "both",
        name: "both in one session",
        reason: "The two sides are compared on the same day, and neither is left behind.",
        changes: "Work begins on the weaker side, and the other follows in the same session.",
      },
      {
        value: "one-a-day",
        name: "one a day, in turn",
        reason: "One side gets the time it needs without a change in the middle; tired muscles have a day off.",
        changes: "Work begins on the side that was not worked last.",
      },
    ],
  },
  {
    key: "begins",
    question: "Free, or on the line",
    about: ["tether"],
    options: [
      {
        value: "line",
        name: "start on the line, then free",
        reason: "The line keeps both safe and the answer clear while it is new; freedom comes when there is something to keep.",
        changes: "Short lead is the easy end of the tether, free the hard one.",
      },
      {
        value: "free",
        name: "start free, add the line last",
        reason: "A horse that may leave tells the truth about the ask; what it offers free it does not need to be held to.",
        changes: "Free is the easy end of the tether, the short lead the hard one.",
      },
    ],
  },
  {
    key: "first",
    question: "The first direction of a feel",
    about: ["form"],
    options: [
      {
        value: "straight",
        name: "straight ahead first",
        reason: "Forward is what the horse knows; the first yes comes soon and nothing twists under it.",
        changes: "Straight ahead is the easy end of the direction.",
      },
      {
        value: "side",
        name: "to the side first",
        reason: "A turned head unlocks the feet: the horse steps rather than leans, and the feel never becomes a pulling match.",
        changes: "To the side is the easy end of the direction.",
      },
    ],
  },
  {
    key: "leaving",
    question: "When the horse leaves",
    about: ["tether", "reach"],
    onlyWith: "free",
    options: [
      {
        value: "allowed",
        name: "it may leave",
        reason: "Leaving is an answer too: it says the ask was too much or too long. A horse that may go comes back on its own.",
        changes: "A departure is logged and waited out; the next ask is easier.",
      },
      {
        value: "brought-back",
        name: "it is brought back",
        reason: "Leaving that works is learned fast. Fetched back quietly, the horse finds the place beside you the easier one.",
        changes: "A departure is logged, the horse is fetched on a line without hurry, and the next ask is easier.",
      },
    ],
  },
  {
    key: "turning-in",
    question: "A loose horse in a pen",
    about: ["tether", "reach"],
    onlyWith: "free",
    options: [
      {
        value: "invite",
        name: "inviting only",
        reason: "Nothing is driven: the handler draws back, waits and makes the middle worth coming to.",
        changes: "The ladder does not count as circling.",
      },
      {
        value: "circle",
        name: "circling until it turns in",
        reason: "Moving off is allowed and made a little work; the first ear or eye to the middle ends it at once.",
        changes: "The ladder counts as circling, so the horse's limits on circling reach it.",
        cautions: [
          "Heat: a driven horse heats up fast. Stop at quick breathing, and not at all in hot, damp weather.",
          "Corners: a horse cornered may jump out or kick. Never follow into a corner; a round pen or rounded corners only.",
          "Footing: deep, wet or stony ground and tight circles strain the legs. Even, dry footing, few rounds, both ways.",
        ],
      },
    ],
  },
];

const byKey = new Map(WAYS.map((way) => [way.key, way]));

/**
 * The option a plan takes on a question: the chosen one, or the first.
 * @example wayOf({ pressure: "rising" }, "begins") // { value: "line", … }
 */
export function wayOf(ways: Ways, key: WayKey): WayOption {
  const choice = byKey.get(key) as WayChoice;
  return choice.options.find(({ value }) => value === ways[key]) ?? choice.options[0];
}

/**
 * The questions that belong to a ladder, by its strands and by whether it is worked free.
 * @param strandNames names of its strands: the first direction is a strand called "direction".
 * @example waysFor(["tether"], ["tether"], true) // 4 of them
 */
export function waysFor(keys: readonly StrandKey[], strandNames: readonly string[], free: boolean): WayChoice[] {
  return WAYS.filter(({ key, about, onlyWith }) => {
    if (onlyWith === "free" && !free) return false;
    if (key === "first") return strandNames.includes("direction");
    return about.length === 0 || about.some((one) => keys.includes(one));
  });
}
