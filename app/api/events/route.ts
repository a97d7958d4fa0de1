import { answer, json, problem, readText } from "../../server/respond";
import { getStore } from "../../server/store";
import { BATCH_MOST_BYTES, takeEvents } from "../../server/take-events";

/** Takes a batch of events; see {@link takeEvents}. */
export function POST(request: Request) {
  return answer(request, async () => {
    const body = await readText(request, BATCH_MOST_BYTES);
    if ("problem" in body) return body.problem;
    const taken = await takeEvents(await getStore(), body.text);
    return "receipt" in taken ? json(taken.receipt) : problem(taken.status, taken.title, taken.detail, taken.fields, taken.code);
  });
}
