import { checkBatch, type FieldProblem } from "@/core/schemas";
import type { Store } from "@/store";

/** Greatest batch of events, in bytes. */
export const BATCH_MOST_BYTES = 1024 * 1024;

/** What to answer a posted batch with: what was saved, or a problem. */
export type BatchAnswer =
  | { readonly status: 200; readonly receipt: { readonly saved: number; readonly known: number; readonly store: string } }
  | { readonly status: number; readonly title: string; readonly detail: string; readonly fields?: readonly FieldProblem[] };

/**
 * Takes a batch of events, already read as JSON; resolves only after it is on
 * the disk. Sending a batch again changes nothing. It serves both the route
 * and the launcher's short way to it, so the two cannot differ.
 */
export async function takeEvents(store: Store, value: unknown): Promise<BatchAnswer> {
  const checked = checkBatch(value, store.now());
  if (!checked.ok)
    return {
      status: 422,
      title: "Not taken",
      detail: checked.problems[0]?.message ?? "Some events need a look.",
      fields: checked.problems,
    };
  if (checked.value.store !== store.id) {
    return {
      status: 409,
      title: "Another store",
      detail: "These taps belong to other data than the one now open. They stay on the device.",
    };
  }
  try {
    return { status: 200, receipt: { ...(await store.events.append(checked.value)), store: store.id } };
  } catch (error) {
    // By name: each bundle has a class of its own.
    if (error instanceof Error && error.name === "UnknownSessionError") {
      return { status: 404, title: "Unknown session", detail: `${error.message} The taps stay on the device.` };
    }
    throw error;
  }
}
