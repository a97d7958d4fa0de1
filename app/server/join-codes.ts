import { randomInt } from "node:crypto";
import { inProcess } from "./in-process";

/** A code is read aloud over a fence: five figures, good for ten minutes. */
export const CODE_FIGURES = 5;
const GOOD_FOR_MS = 10 * 60_000;

interface Given {
  readonly session: string;
  readonly untilMs: number;
}

/** One for the process: two bundles of the program must not each have their own. */
const shared = inProcess<{ deftCodes?: Map<string, Given> }>();

function codes(nowMs: number): Map<string, Given> {
  shared.deftCodes ??= new Map();
  for (const [code, { untilMs }] of shared.deftCodes) if (untilMs <= nowMs) shared.deftCodes.delete(code);
  return shared.deftCodes;
}

/** A code for a session: the one it has while that is good, otherwise a new one. */
export function codeFor(session: string, nowMs: number): { readonly code: string; readonly untilMs: number } {
  const all = codes(nowMs);
  for (const [code, given] of all) if (given.session === session) return { code, untilMs: given.untilMs };
  let code: string;
  do code = String(randomInt(10 ** CODE_FIGURES)).padStart(CODE_FIGURES, "0");
  while (all.has(code));
  const untilMs = nowMs + GOOD_FOR_MS;
  all.set(code, { session, untilMs });
  return { code, untilMs };
}

/** The session of a code, or null where it is none or its time is up. @param typed with or without spaces. */
export const sessionOfCode = (typed: string, nowMs: number): string | null => codes(nowMs).get(typed.replace(/\D/g, ""))?.session ?? null;
