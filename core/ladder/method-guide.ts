import type { Method } from "./ladder";

/** A method done properly: its words, its buttons, the order of its steps and its cautions. */
export interface MethodGuide {
  readonly name: string;
  readonly short: string;
  readonly how: string;
  /** What the recorder offers for the instant of the answer and what follows. */
  readonly buttons: { readonly instant: "mark" | null; readonly reward: "food" | "scratch" };
  readonly order: readonly string[];
  readonly cautions: readonly string[];
}

/** What stands above the rule of holding on a wrong answer; the coach has the same in core/coach. */
const PANIC =
  "Rears, runs back, goes down, a leg in the line, frantic: give line at once, then press danger. That is a safety release, not a reward and not your fault.";

/** Order of steps and cautions are common practice, no source. */
export const METHOD_GUIDES: Readonly<Record<Method, MethodGuide>> = {
  "pressure-release": {
    name: "pressure and release",
    short: "pressure, release",
    how: "The ask is a feel the horse can end by its own answer. What teaches is the release, in the instant of the smallest answer the rung calls right. On a try you hold, no more.",
    buttons: { instant: null, reward: "scratch" },
    order: [
      "Ask at the lightest phase",
      "Wait out its time, then the next phase",
      "The answer comes",
      "Release at once, all of it",
      "Rest, or a scratch",
    ],
    cautions: [
      "On a wrong answer hold the level and wait.",
      PANIC,
      "A horse that braces or fights needs a smaller ask, not a stronger one.",
    ],
  },
  "marker-food": {
    name: "marker and food",
    short: "mark, food",
    how: "Nothing is pressed. The mark says which instant earned food; the food follows where you want the horse to be.",
    buttons: { instant: "mark", reward: "food" },
    order: [
      "Ask by a signal, or wait for the answer",
      "The answer comes",
      "Mark in that instant",
      "The head is turned away",
      "Food, where it belongs",
    ],
    cautions: [
      "Food never comes before the mark, and the hand never goes to the pouch before it.",
      "A horse that searches the pouch gets nothing until its head is turned away.",
      "Food is part of the day's ration: ask a veterinarian where weight or laminitis is a question.",
    ],
  },
  combined: {
    name: "combined: release, mark and food",
    short: "release, mark, food",
    how: "The ask is a feel; release and mark come together on the answer, and food follows. The release must stand by itself: food does not buy off a late one.",
    buttons: { instant: "mark", reward: "food" },
    order: [
      "Ask at the lightest phase",
      "The answer comes",
      "Release and mark together",
      "The head is turned away",
      "Food, where it belongs",
    ],
    cautions: [
      PANIC,
      "Where the feel grows the horse may rush for the food; soften the ask before adding pieces.",
      "Food never comes before the mark.",
    ],
  },
};

/** In place of food, for a horse that has none. */
export const REINFORCER_WORDS = { food: "food", scratch: "a scratch", rest: "a rest", away: "going away from the worry" } as const;
