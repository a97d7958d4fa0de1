import { putAwaySchema } from "@/core/schemas";
import { setLadderAway } from "@/store";
import { takeForm } from "../../../../server/form-route";

/** Puts a ladder away, or takes it up again. */
export async function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeForm(request, putAwaySchema, async (store, { away }) => {
    await setLadderAway(store, id, away);
    return { id };
  });
}
