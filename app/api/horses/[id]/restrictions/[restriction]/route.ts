import { restrictionEndSchema, restrictionSchema } from "@/core/schemas";
import { endRestriction, updateRestriction } from "@/store";
import { takeForm } from "../../../../../server/form-route";

type Context = { params: Promise<{ id: string; restriction: string }> };

export async function PUT(request: Request, { params }: Context) {
  const { id, restriction } = await params;
  return takeForm(request, restrictionSchema, async (store, changed) => {
    await updateRestriction(store, id, restriction, changed);
    return { id: restriction };
  });
}

/** Ends it with the reason, or lets it hold again. */
export async function POST(request: Request, { params }: Context) {
  const { id, restriction } = await params;
  return takeForm(request, restrictionEndSchema, async (store, { ended, why }) => {
    await endRestriction(store, id, restriction, ended ? why : null);
    return { id: restriction };
  });
}
