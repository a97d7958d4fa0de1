import type { SessionEvent } from "@/core/schemas";
import type { KeptSession } from "./queue";
import type { Sender } from "./sender";

/** Taps and sessions the server does not have, as a file. */
export interface UnsentFile {
  readonly what: "deft-tether-taps";
  readonly store: string;
  readonly sessions: readonly KeptSession[];
  readonly events: readonly SessionEvent[];
}

/** What the server does not have, whole: to be carried to it by hand where no way leads there. */
export async function unsentOf(sender: Sender): Promise<UnsentFile> {
  const events = [...(await sender.withKept((queue) => queue.notSaved())), ...sender.unkept()];
  const wanted = new Set(events.map(({ session }) => session));
  const sessions = (await sender.sessions()).filter(({ id, standing }) => standing !== "saved" || wanted.has(id));
  return { what: "deft-tether-taps", store: sender.storeId, sessions, events };
}

/**
 * Takes in what another device, or another address of this one, could not
 * send. What is known already changes nothing.
 * @returns how many taps were taken in.
 * @throws with words where the file is none of this store's.
 */
export async function takeIn(sender: Sender, file: unknown): Promise<number> {
  const { what, store, sessions, events } = (file ?? {}) as Partial<UnsentFile>;
  if (what !== "deft-tether-taps" || !Array.isArray(events) || !Array.isArray(sessions)) throw new Error("This is no file of taps.");
  if (store !== sender.storeId) throw new Error("These taps belong to other data than the one now open.");
  await sender.withKept(async (queue) => {
    for (const session of sessions as KeptSession[]) await queue.keepSession({ ...session, standing: "waiting", savedAt: null });
    await queue.keepNew(events as SessionEvent[]);
  });
  sender.kick();
  return events.length;
}
