import { bodyOf, NO_ANSWER, reach } from "./reach";
import { steadyNowMs } from "./steady-clock";

/** What the server said of its clock and its store, and how its clock stands to this device's. */
export interface ServerClock {
  /** Server clock minus device clock. */
  readonly offsetMs: number;
  /** How long the best answer took: offsets closer than this cannot be told apart. */
  readonly roundTripMs: number;
  readonly store: string;
  readonly epoch: string;
  readonly position: number;
}

async function askOnce(): Promise<ServerClock> {
  const before = steadyNowMs();
  const response = await reach("/api/clock");
  const said = response.ok ? await bodyOf<{ now_ms: number; store: string; epoch?: string; position?: number }>(response) : null;
  // Another page on the way may answer anything with 200.
  if (said === null || typeof said.now_ms !== "number" || typeof said.store !== "string") throw new Error(NO_ANSWER);
  const after = steadyNowMs();
  const offsetMs = Math.round(said.now_ms - (before + after) / 2);
  return { offsetMs, roundTripMs: after - before, store: said.store, epoch: said.epoch ?? "", position: said.position ?? 0 };
}

/**
 * The server's clock against this device's: of several askings the one whose
 * answer came back quickest, since half its way is the most the offset can be
 * wrong by (Cristian 1989; the same filter as in RFC 5905).
 */
export async function serverClock(askings: number): Promise<ServerClock> {
  let best = await askOnce();
  for (let n = 1; n < askings; n++) {
    const next = await askOnce();
    if (next.roundTripMs < best.roundTripMs) best = next;
  }
  return best;
}
