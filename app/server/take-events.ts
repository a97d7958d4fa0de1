import { BATCH_LIMITS, checkBatch, readWire } from "@/core/schemas";
import type { BatchReceipt, Store } from "@/store";
import { type Problem, problemOf } from "./problem-of";

/** Whether whoever sends may log under a recorder's name. */
export type MayLogAs = (recorder: string) => boolean;

/** Greatest batch of events, in bytes. */
export const BATCH_MOST_BYTES = 1024 * 1024;

/** What to answer a posted batch with: what was saved, or a problem. */
export type BatchAnswer =
  | { readonly status: 200; readonly receipt: BatchReceipt & { readonly store: string; readonly epoch: string } }
  | Problem;

/** What the batch itself is answered with; anything else is the store's or the program's failure and is thrown. */
const OF_THE_BATCH = ["unknown-session", "event-conflict"];

/**
 * Takes a batch of events, as the text that was posted; resolves only after it
 * is on the disk. Sending a batch again changes nothing.
 */
export async function takeEvents(store: Store, text: string, mayLogAs: MayLogAs = () => true): Promise<BatchAnswer> {
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
  if (checked.value.events.some(({ recorder }) => !mayLogAs(recorder)))
    return {
      status: 422,
      title: "Another's name",
      detail: "These taps were made under another name than the one signed in on this device. They stay on the device.",
      code: "another-recorder",
    };
  try {
    return { status: 200, receipt: { ...(await store.events.append(checked.value)), store: store.id, epoch: store.epoch } };
  } catch (error) {
    const problem = problemOf(error);
    if (problem?.code !== undefined && OF_THE_BATCH.includes(problem.code)) return problem;
    throw error;
  }
}
