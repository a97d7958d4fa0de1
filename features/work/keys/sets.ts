/** What a key or a button can do in the recorder, in the order of the list on screen. */
export const KEY_ACTS = [
  { act: "hold", words: "hold while you ask, or while it stays" },
  { act: "met", words: "got it" },
  { act: "try", words: "try" },
  { act: "miss", words: "something else" },
  { act: "refused", words: "no answer" },
  { act: "mark", words: "mark" },
  { act: "food", words: "food, or what takes its place" },
  { act: "phase-up", words: "a clearer cue" },
  { act: "phase-down", words: "a lighter cue" },
  { act: "ease", words: "relaxes: a sign of calm" },
  { act: "soft", words: "the last answer was soft" },
  { act: "not-soft", words: "the last answer was not soft" },
  { act: "tension", words: "tightens: a tension sign" },
  { act: "danger", words: "danger: the stop card" },
  { act: "wrong", words: "a wrong choice, held while it lasts" },
  { act: "looks", words: "it looks, and has looked" },
  { act: "settles", words: "it settles, and has settled" },
  { act: "retreat", words: "back off as the reward" },
  { act: "offer", words: "an answer nobody asked for" },
  { act: "away", words: "leaves, and is back" },
  { act: "side", words: "other side" },
  { act: "break", words: "break, and back" },
  { act: "way", words: "Tally or Timed" },
  { act: "pads", words: "the other page of pads, on a small screen" },
  { act: "finish", words: "finish" },
  { act: "undo", words: "undo" },
  { act: "word", words: "take the advice" },
  { act: "keys", words: "these keys" },
] as const;

export type KeyAct = (typeof KEY_ACTS)[number]["act"];

/** One button that says three things by how it is pressed; see core's OneButton. */
export const ONE = "one";
export type Bound = KeyAct | typeof ONE;

/** Which key does what: by the key's own name, letters in lower case. */
export type Bindings = Readonly<Record<string, Bound>>;

/** A set of keys for one kind of device. */
export interface KeySet {
  readonly id: string;
  readonly name: string;
  readonly hint: string;
  readonly bindings: Bindings;
  /** Whether the device tells when a key comes up. Where not, one press is press-on and the next press-off. */
  readonly keyUp: boolean;
}

/** The sets that come with the app. Which keys a remote or a foot switch sends is common practice; each can be changed. */
export const KEY_SETS: readonly KeySet[] = [
  {
    id: "keyboard",
    name: "Keyboard",
    hint: "Letters follow the words on the pads.",
    keyUp: true,
    bindings: {
      " ": "hold",
      g: "met",
      t: "try",
      o: "miss",
      n: "refused",
      m: "mark",
      f: "food",
      ArrowUp: "phase-up",
      ArrowDown: "phase-down",
      e: "ease",
      h: "soft",
      i: "not-soft",
      x: "tension",
      d: "danger",
      a: "offer",
      v: "wrong",
      k: "looks",
      y: "settles",
      r: "retreat",
      l: "away",
      s: "side",
      b: "break",
      c: "way",
      p: "pads",
      q: "finish",
      u: "undo",
      w: "word",
      "?": "keys",
    },
  },
  {
    id: "remote",
    name: "Presentation remote",
    hint: "Forward is got it, back is try. It sends no key-up, so a hold is on with one press and off with the next.",
    keyUp: false,
    bindings: {
      PageDown: "met",
      ArrowRight: "met",
      PageUp: "try",
      ArrowLeft: "try",
      b: "refused",
      ".": "refused",
      F5: "hold",
      Escape: "undo",
      "?": "keys",
    },
  },
  {
    id: "foot",
    name: "Foot switch",
    hint: "Left pedal held while you ask, right pedal got it, the middle one a mark.",
    keyUp: true,
    bindings: { ArrowLeft: "hold", ArrowRight: "met", ArrowUp: "mark", Enter: "mark", "?": "keys" },
  },
  {
    id: "pocket",
    name: "One button",
    hint: "The phone stays in the pocket: press for got it, twice quickly for try, long for no answer. Where calm is asked the next press says soft, a long one not soft.",
    keyUp: true,
    bindings: { PageDown: ONE, Enter: ONE, ArrowRight: ONE, "?": "keys" },
  },
];

/** How a key is written on screen. */
export function shownKey(key: string): string {
  if (key === " ") return "Space";
  return key.length === 1 ? key.toUpperCase() : key.replace(/^Arrow/, "Arrow ").replace(/^Page/, "Page ");
}

/** The key of an event, as bindings name it. */
export const keyOf = (event: { readonly key: string }) => (event.key.length === 1 ? event.key.toLowerCase() : event.key);

/** A set with one key changed: an act may have several keys, a key has one act. null takes the key's act away. */
export function rebind(set: KeySet, key: string, act: Bound | null): KeySet {
  const { [key]: _, ...others } = set.bindings;
  return { ...set, bindings: act === null ? others : { ...others, [key]: act } };
}

/** Keys a browser keeps for moving about; they cannot be bound. */
const KEPT = new Set(["Tab", "Shift", "Control", "Alt", "Meta", "AltGraph", "CapsLock", "Dead", "Process", "Unidentified"]);

/** Why a key cannot be bound, or null. Digits choose the cue. */
export function keyProblem(key: string): string | null {
  if (KEPT.has(key)) return "The browser needs this key.";
  if (/^[1-9]$/.test(key)) return "Digits choose the cue.";
  return null;
}
