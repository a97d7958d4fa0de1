import { getSession } from "@/store";
import { codeFor } from "../../../../server/join-codes";
import { answer, json } from "../../../../server/respond";
import { getStore } from "../../../../server/store";

/** A short code by which a second device joins this session. */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answer(request, async () => {
    const store = await getStore();
    const { id } = await getSession(store, (await params).id);
    return json(codeFor(id, store.now()));
  });
}
