import { awaySchema } from "@/core/schemas";
import { setAway } from "@/store";
import { takeAct, takeForm } from "../../../../server/form-route";

type Context = { params: Promise<{ id: string }> };

/** Puts a horse away. */
export async function PUT(request: Request, { params }: Context) {
  const { id } = await params;
  return takeForm(request, awaySchema, async (store, away) => {
    await setAway(store, id, away);
    return { id };
  });
}

/** Brings it back. */
export async function DELETE(request: Request, { params }: Context) {
  const { id } = await params;
  return takeAct(request, async (store) => {
    await setAway(store, id, null);
    return { id };
  });
}
