import { restrictionSchema } from "@/core/schemas";
import { removeRestriction, updateRestriction } from "@/store";
import { takeAct, takeForm } from "../../../../../server/form-route";

type Context = { params: Promise<{ id: string; restriction: string }> };

export async function PUT(request: Request, { params }: Context) {
  const { id, restriction } = await params;
  return takeForm(request, restrictionSchema, async (store, changed) => {
    await updateRestriction(store, id, restriction, changed);
    return { id: restriction };
  });
}

export async function DELETE(request: Request, { params }: Context) {
  const { id, restriction } = await params;
  return takeAct(request, async (store) => {
    await removeRestriction(store, id, restriction);
    return { id: restriction };
  });
}
