import type { BegunSession } from "@/core/pack";
import { bodyOf, NO_ANSWER, reach } from "./reach";
import { senderFor } from "./sender";

/** What came of beginning a session. */
export type Begun =
  | { readonly ok: true; readonly where: "server" | "device" }
  | { readonly ok: false; readonly message: string; readonly code?: string };

/** A pen is no place to wait: a server that has not answered by then hears of it later. */
const WAIT_MS = 5000;

/**
 * Begins a session: on the server where it answers, otherwise on this device,
 * which gives it to the server later, once. Its id is made here, so that an
 * answer that was lost makes no second one.
 * @param more whether it is begun beside a running one, or when it began where it is written down later.
 */
export async function beginSession(
  storeId: string,
  begun: BegunSession,
  more: { readonly beside?: boolean; readonly startedMs?: number } = {},
): Promise<Begun> {
  const sender = senderFor(storeId);
  let response: Response | null = null;
  try {
    response = await reach(
      "/api/sessions",
      {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({
          ...begun,
          ...(more.beside === true ? { beside: true } : {}),
          ...(more.startedMs === undefined ? {} : { started_ms: more.startedMs }),
        }),
      },
      WAIT_MS,
    );
  } catch {
    // No answer: kept below.
  }
  if (response !== null) {
    const answer = await bodyOf<{ id?: string; detail?: string; code?: string }>(response);
    if (response.ok && answer?.id === begun.id) {
      await sender.keepSession(begun, "saved");
      return { ok: true, where: "server" };
    }
    // A disk that is full or held, or a sign-in that has run out, is no reason not to work: it goes up once that is put right.
    if (response.status < 500 && response.status !== 401) return { ok: false, message: answer?.detail ?? NO_ANSWER, code: answer?.code };
  }
  if (await sender.keepSession(begun, "waiting", more.startedMs ?? null)) return { ok: true, where: "device" };
  return { ok: false, message: "The server does not answer, and this browser keeps nothing. The session did not begin." };
}
