import { v4 as newId } from "uuid";
import { eventOf, type Fact } from "@/core/events/fact";
import { recorderId } from "./recorder-id";
import { senderFor } from "./sender";

/** What became of facts logged outside the recorder: on the server, kept on this device, or only in this page. */
export type LoggedApart = "sent" | "kept" | "held";

const WAIT_MS = 4000;

/**
 * Logs facts of one moment to a session from a page that is not its recorder:
 * a note, a correction, an end. They go the way of every tap, so nothing is
 * lost where the server does not answer.
 */
export async function logApart(storeId: string, sessionId: string, facts: readonly Fact[], person = "review"): Promise<LoggedApart> {
  const sender = senderFor(storeId);
  const load = newId();
  sender.tieLoad(load);
  const moment = { session: sessionId, recorder: recorderId(person), load, mono_ms: Math.round(performance.now()), wall_ms: Date.now() };
  const kept = await sender.keep(facts.map((fact, seq) => eventOf({ id: newId(), ...moment, seq }, fact)));
  if (await sender.flush(WAIT_MS)) return "sent";
  return kept ? "kept" : "held";
}

/** The same in words. */
export const LOGGED_WORDS: Readonly<Record<LoggedApart, string>> = {
  sent: "Saved.",
  kept: "Kept on this device. The server does not answer; it is sent as soon as it does.",
  held: "Not saved yet: this device does not keep it and the server does not answer. Keep this page open; it is sent as soon as it can be.",
};
