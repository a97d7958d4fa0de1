import { placeSchema } from "@/core/schemas";
import { putInBin, updatePlace } from "@/store";
import { takeAct, takeForm } from "../../../server/form-route";

type Context = { params: Promise<{ id: string }> };

export async function PUT(request: Request, { params }: Context) {
  const { id } = await params;
  return takeForm(request, placeSchema, async (store, place) => {
    await updatePlace(store, id, place);
    return { id };
  });
}

export async function DELETE(request: Request, { params }: Context) {
  const { id } = await params;
  return takeAct(request, async (store) => {
    await putInBin(store, "place", id);
    return { id };
  });
}
