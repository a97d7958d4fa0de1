/** What a key does in the recorder. Letters follow the words on the pads. */
export const KEYS = [
  { key: " ", shown: "Space", act: "hold", words: "hold while you ask (Timed)" },
  { key: "g", shown: "G", act: "met", words: "got it" },
  { key: "t", shown: "T", act: "try", words: "try" },
  { key: "o", shown: "O", act: "miss", words: "something else" },
  { key: "n", shown: "N", act: "refused", words: "no answer" },
  { key: "m", shown: "M", act: "mark", words: "mark" },
  { key: "f", shown: "F", act: "food", words: "food, or a scratch" },
  { key: "e", shown: "E", act: "ease", words: "ease sign" },
  { key: "x", shown: "X", act: "tension", words: "tension sign" },
  { key: "s", shown: "S", act: "side", words: "other side" },
  { key: "b", shown: "B", act: "break", words: "break, and back" },
  { key: "u", shown: "U", act: "undo", words: "undo" },
  { key: "w", shown: "W", act: "word", words: "take the word" },
  { key: "?", shown: "?", act: "keys", words: "these keys" },
] as const;

export type KeyAct = (typeof KEYS)[number]["act"];

const byKey = new Map<string, KeyAct>(KEYS.map(({ key, act }) => [key, act]));

/** The act of a key press, a phase number for the digits, or null. Repeats of a held key are no presses. */
export function actOf(event: KeyboardEvent): KeyAct | number | null {
  if (event.repeat || event.metaKey || event.ctrlKey || event.altKey) return null;
  const target = event.target;
  if (target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))) return null;
  if (/^[1-5]$/.test(event.key)) return Number(event.key);
  return byKey.get(event.key.toLowerCase()) ?? null;
}
