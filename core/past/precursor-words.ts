/** Seconds within which what comes after counts as having followed. */
export const FOLLOWS_WITHIN_SECONDS = 20;
/** A wait from which it is looked at whether one comes before it goes, in seconds (common practice, no source). */
export const WAITS_FROM_SECONDS = 15;

const NAMED: Readonly<Record<string, (name: string) => string>> = {
  left: () => "leaving",
  wrong: (name) => (name === "" ? "a wrong choice" : `a wrong choice (${name})`),
  zone: (name) => `coming to ${name}`,
  raised: () => "a clearer ask",
  waited: () => `a wait of ${WAITS_FROM_SECONDS} s`,
};

/** What was seen, in the trainer's words; a sign by its name. @example precursorWords({ kind: "raised", name: "" }) // "a clearer ask" */
export const precursorWords = ({ kind, name }: { readonly kind: string; readonly name: string }): string => NAMED[kind]?.(name) ?? name;
