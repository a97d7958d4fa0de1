import { answer, json } from "../../server/respond";
import { getStore } from "../../server/store";

/** The server's clock and the store's identity, for a recorder to tie its own clock to. */
export function GET(request: Request) {
  return answer(request, async () => {
    const store = await getStore();
    return json({ store: store.id, now_ms: store.now() });
  });
}
