import { crc32 } from "node:zlib";

/** Thrown where a kept text is not what was written: it is worked out anew. */
export class DamagedSumError extends Error {
  readonly code = "damaged-sum";
}

const SEAL_LETTERS = 8;
const sealOf = (text: string): string => crc32(text).toString(16).padStart(SEAL_LETTERS, "0");

/** A text with its check sum before it. @example opened(sealed("{}")) // "{}" */
export const sealed = (text: string): string => `${sealOf(text)}${text}`;

/** The text that was sealed. @throws DamagedSumError where it is another. */
export function opened(kept: unknown): string {
  const text = typeof kept === "string" ? kept.slice(SEAL_LETTERS) : "";
  if (typeof kept !== "string" || sealOf(text) !== kept.slice(0, SEAL_LETTERS)) throw new DamagedSumError("A kept sum is damaged.");
  return text;
}

/** The same of what may be nothing. */
export const openedOrNull = (kept: unknown): string | null => (kept === null || kept === undefined ? null : opened(kept));
