import { eventReach } from "@/store";
import { answer, json } from "../../server/respond";
import { getStore } from "../../server/store";

/**
 * The server's clock and the store's identity, for a recorder to tie its own
 * clock to; and how far the store's events reach, by which a device notices
 * that what it had confirmed is gone.
 */
export function GET(request: Request) {
  return answer(request, async () => {
    const store = await getStore();
    const position = await eventReach(store.models);
    return json({ store: store.id, epoch: store.epoch, position, now_ms: store.now() });
  });
}
