import { BATCH_LIMITS, checkBatch, readWire } from "@/core/schemas";
import type { BatchReceipt, Store } from "@/store";
import { type Problem, problemOf } from "./problem-of";

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
 * is on the disk. Sending a batch again changes nothing. It serves both the
 * route and the launcher's short way to it, so the two cannot differ.
 */
export async function takeEvents(store: Store, text: string): Promise<BatchAnswer> {
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
  try {
    return { status: 200, receipt: { ...(await store.events.append(checked.value)), store: store.id, epoch: store.epoch } };
  } catch (error) {
    const problem = problemOf(error);
    if (problem?.code !== undefined && OF_THE_BATCH.includes(problem.code)) return problem;
    throw error;
  }
}
