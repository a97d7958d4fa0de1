import { BATCH_LIMITS, checkBatch, readWire, type SessionEvent } from "@/core/schemas";
import { type BatchReceipt, movesSession, originsOf, putAside, recordersOfLoads, type Store } from "@/store";
import { type Problem, problemOf } from "./problem-of";

/** Whether whoever sends may log under a recorder's name. */
export type MayLogAs = (recorder: string) => boolean;

/** Who sends a batch, as far as it matters to what may be in it. */
export interface Sends {
  readonly mayLogAs: MayLogAs;
  /** Of a helper: who it is, and which recorders are own. Null for full rights, which may correct from any device. */
  readonly helper: { readonly personId: string | null; readonly own: (recorder: string) => boolean } | null;
}

/** On the machine itself everybody has full rights, under every name. */
const ON_THE_MACHINE: Sends = { mayLogAs: () => true, helper: null };

/** Greatest batch of events, in bytes. */
export const BATCH_MOST_BYTES = 1024 * 1024;

/** What to answer a posted batch with: what was saved, or a problem. */
export type BatchAnswer =
  | { readonly status: 200; readonly receipt: BatchReceipt & { readonly store: string; readonly epoch: string } }
  | Problem;

const ANOTHERS_CLOCK: Problem = {
  status: 422,
  title: "Another's clock",
  detail: "The clock of these taps is another device's. They stay on the device.",
  code: "another-recorder",
};
const ANOTHERS_TAP: Problem = {
  status: 422,
  title: "Another's tap",
  detail: "A helper corrects own taps, and those of a session of one's own. The yard keeper sees it under Data and can take it in.",
  code: "another-tap",
};

/** What of a helper's batch takes back or changes what is not the helper's to change. What is in the log already, by whoever took it in, is none. */
async function ofOthers(
  store: Store,
  events: readonly SessionEvent[],
  { personId, own }: NonNullable<Sends["helper"]>,
): Promise<readonly SessionEvent[]> {
  const here = new Map(events.map((event) => [event.id, event]));
  const changes = events.filter((event) => event.type === "correct" || event.type === "undo");
  const targetOf = (event: SessionEvent) => (event.type === "correct" || event.type === "undo" ? event.payload.event : "");
  const stored = await originsOf(
    store,
    changes.flatMap((event) => [event.id, ...(here.has(targetOf(event)) ? [] : [targetOf(event)])]),
  );
  return changes.filter((event) => {
    if (stored.has(event.id)) return false;
    if (movesSession(event)) return true;
    const inBatch = here.get(targetOf(event));
    if (inBatch !== undefined) return !own(inBatch.recorder);
    const origin = stored.get(targetOf(event));
    return origin !== undefined && !own(origin.recorder) && (personId === null || origin.personId !== personId);
  });
}

/** What the batch itself is answered with; anything else is the store's or the program's failure and is thrown. */
const OF_THE_BATCH = ["unknown-session", "event-conflict"];

/**
 * Takes a batch of events, as the text that was posted; resolves only after it
 * is on the disk. Sending a batch again changes nothing.
 */
export async function takeEvents(store: Store, text: string, { mayLogAs, helper }: Sends = ON_THE_MACHINE): Promise<BatchAnswer> {
  const read = readWire(text, BATCH_LIMITS);
  if ("problem" in read) return { status: 400, title: "Not taken", detail: read.problem };
  const checked = checkBatch(read.value, store.now());
  if (!checked.ok) {
    const clock = checked.problems.every(({ path }) => path.endsWith("wall_ms") || path.startsWith("clocks."));
    return {
      status: 422,
      title: "Not taken",
      detail: checked.problems[0]?.message ?? "Some events need a look.",
      fields: checked.problems,
      ...(clock ? { code: "clock" } : {}),
    };
  }
  if (checked.value.store !== store.id) {
    return {
      status: 409,
      title: "Another store",
      detail: "These taps belong to other data than the one now open. They stay on the device.",
      code: "another-store",
    };
  }
  // Who and which device a tap comes from is the server's to say: from the network nobody logs under another's name.
  const { events, recorder, clocks } = checked.value;
  if (!mayLogAs(recorder) || events.some((event) => !mayLogAs(event.recorder)))
    return {
      status: 422,
      title: "Another's name",
      detail: "These taps were made under another name than the one signed in on this device. They stay on the device.",
      code: "another-recorder",
    };
  // A load belongs to who tapped under it first: its clock is not moved from another device.
  if ((await recordersOfLoads(store, Object.keys(clocks))).some((name) => !mayLogAs(name))) return ANOTHERS_CLOCK;
  if (helper !== null) {
    const others = await ofOthers(store, events, helper);
    if (others.length > 0) {
      // Kept and named for whoever may take it in; a disk that takes nothing leaves it on the device.
      await putAside(store, helper.personId, others).catch(() => undefined);
      return ANOTHERS_TAP;
    }
  }
  try {
    return { status: 200, receipt: { ...(await store.events.append(checked.value)), store: store.id, epoch: store.epoch } };
  } catch (error) {
    const problem = problemOf(error);
    if (problem?.code !== undefined && OF_THE_BATCH.includes(problem.code)) return problem;
    throw error;
  }
}
