/**
 * A spreadsheet takes a cell that begins with one of these for a formula.
 * Such text is written with a leading apostrophe and read back without it.
 */
const RISKY_START = /^[=+\-−@\t\r']/;

/** A text cell ready to be written. @example guardText("M") // "M" */
export function guardText(text: string): string {
  return RISKY_START.test(text) ? `'${text}` : text;
}

/** A text cell as it was before it was guarded. @example unguardText("M") // "M" */
export function unguardText(cell: string): string {
  return cell.charCodeAt(0) === 39 ? cell.slice(1) : cell;
}
