import { kitSchema } from "@/core/schemas";
import { putInBin, updateKit } from "@/store";
import { takeAct, takeForm } from "../../../server/form-route";

type Context = { params: Promise<{ id: string }> };

export async function PUT(request: Request, { params }: Context) {
  const { id } = await params;
  return takeForm(request, kitSchema, async (store, kit) => {
    await updateKit(store, id, kit);
    return { id };
  });
}

export async function DELETE(request: Request, { params }: Context) {
  const { id } = await params;
  return takeAct(request, async (store) => {
    await putInBin(store, "kit", id);
    return { id };
  });
}
