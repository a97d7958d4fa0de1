import { chainSchema } from "@/core/schemas";
import { putInBin, updateChain } from "@/store";
import { takeAct, takeForm } from "../../../server/form-route";

type Context = { params: Promise<{ id: string }> };

export async function PUT(request: Request, { params }: Context) {
  const { id } = await params;
  return takeForm(request, chainSchema, async (store, chain) => {
    await updateChain(store, id, chain);
    return { id };
  });
}

export async function DELETE(request: Request, { params }: Context) {
  const { id } = await params;
  return takeAct(request, async (store) => {
    await putInBin(store, "chain", id);
    return { id };
  });
}
