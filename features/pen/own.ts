import type { OwnSession } from "@/core/pack";
import { reduceSession } from "@/core/record";
import type { SessionEvent } from "@/core/schemas";
import type { Sender } from "../device/sender";

/** Clocks of one device are taken to agree with the server's this closely when a fetch is compared with a confirmation. */
const MARGIN_MS = 3000;

/** The offsets of the page loads these events came from, as far as this device knows them; otherwise the one it knew last. */
export async function offsetsOf(
  sender: Sender,
  events: readonly SessionEvent[],
  otherwiseMs: number,
  known: Readonly<Record<string, number>> = {},
): Promise<Map<string, number>> {
  const loads = [...new Set(events.map((event) => event.load))];
  const kept = await sender.offsetsKept(loads);
  return new Map(loads.map((load) => [load, known[load] ?? kept.get(load) ?? otherwiseMs]));
}

/**
 * The sessions of this device that the server's pack does not hold yet, worked
 * out from their taps: what waits to be sent, and what was sent after the pack
 * was made.
 */
export async function ownSessions(
  sender: Sender,
  { fetchedMs, offsetMs, silenceMinutes }: { readonly fetchedMs: number; readonly offsetMs: number; readonly silenceMinutes: number },
): Promise<OwnSession[]> {
  const [kept, through] = await Promise.all([sender.sessions(), sender.savedThrough()]);
  const own: OwnSession[] = [];
  for (const { id, begun, madeMs, startedMs, standing } of kept) {
    const savedMs = through.get(id);
    if (savedMs === undefined) continue;
    if (savedMs !== null && standing === "saved" && savedMs < fetchedMs - MARGIN_MS) continue;
    const events = await sender.ofSession(id);
    const offsetMsByLoad = await offsetsOf(sender, events, offsetMs);
    own.push({ begun, createdMs: startedMs ?? madeMs + offsetMs, record: reduceSession(events, { offsetMsByLoad, silenceMinutes }) });
  }
  return own;
}
