/** Longest name and longest text that the app takes, in characters. */
export const NAME_MOST_CHARACTERS = 80;
export const TEXT_MOST_CHARACTERS = 4000;

/** Control characters have no place in a name or a note, line feed and tab in notes aside. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: they are exactly what is looked for
export const CONTROL_IN_NAME = /[\u0000-\u001f\u007f]/;
// biome-ignore lint/suspicious/noControlCharactersInRegex: they are exactly what is looked for
export const CONTROL_IN_TEXT = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/;
