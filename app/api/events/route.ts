import { checkBatch } from "@/core/schemas";
import { answer, BATCH_MOST_BYTES, invalid, json, problem, readJson } from "../../server/respond";
import { getStore } from "../../server/store";

/** Takes a batch of events; answers only after they are on the disk. Sending a batch again changes nothing. */
export function POST(request: Request) {
  return answer(async () => {
    const body = await readJson(request, BATCH_MOST_BYTES);
    if ("problem" in body) return body.problem;
    const store = await getStore();
    const checked = checkBatch(body.value, store.now());
    if (!checked.ok) return invalid(checked.problems);
    if (checked.value.store !== store.id) {
      return problem(409, "Another store", "These taps belong to other data than the one now open. They stay on the device.");
    }
    try {
      const receipt = await store.events.append(checked.value);
      return json({ ...receipt, store: store.id });
    } catch (error) {
      // By name: each route is bundled apart, and the store may come from another bundle with a class of its own.
      if (error instanceof Error && error.name === "UnknownSessionError")
        return problem(404, "Unknown session", `${error.message} The taps stay on the device.`);
      throw error;
    }
  });
}
