import { dateDoneSchema } from "@/core/schemas";
import { dateDone, removeDate } from "@/store";
import { takeAct, takeForm } from "../../../../../server/form-route";

type Context = { params: Promise<{ id: string; date: string }> };

/** Marks it as done; one that comes again is put after it. */
export async function POST(request: Request, { params }: Context) {
  const { id, date } = await params;
  return takeForm(request, dateDoneSchema, async (store, { day }) => {
    await dateDone(store, id, date, day);
    return { id: date };
  });
}

export async function DELETE(request: Request, { params }: Context) {
  const { id, date } = await params;
  return takeAct(request, async (store) => {
    await removeDate(store, id, date);
    return { id: date };
  });
}
