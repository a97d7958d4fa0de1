import { clockOffsets, eventsOfSession, getHorse, getSession, getSettings } from "@/store";
import { horseCare } from "../../../../server/horse-care";
import { answer, json, problem } from "../../../../server/respond";
import { getStore } from "../../../../server/store";

/** Events saved after a position, for a second recorder to follow along. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answer(request, async () => {
    const { id } = await params;
    const after = Number(new URL(request.url).searchParams.get("after") ?? "0");
    if (!Number.isSafeInteger(after) || after < 0) return problem(400, "Not a position", "after must be a whole number, 0 or more.");
    const store = await getStore();
    const session = await getSession(store, id);
    const { events, position } = await eventsOfSession(store, session.id, after);
    const { allowance, sentences } = await horseCare(store, await getHorse(store, session.horse_id));
    // A restriction or a threshold that changes while the horse is being worked reaches whoever works it.
    const care = { allowance, cautions: sentences, wordSettings: await getSettings(store) };
    return json({ events, position, clocks: Object.fromEntries(await clockOffsets(store, events)), care });
  });
}
