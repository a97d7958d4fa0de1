import { removeHandLoad } from "@/store";
import { takeAct } from "../../../../../server/form-route";

/** Takes an entry out again. */
export async function DELETE(request: Request, { params }: { params: Promise<{ id: string; entry: string }> }) {
  const { id, entry } = await params;
  return takeAct(request, async (store) => {
    await removeHandLoad(store, id, entry);
    return { id: entry };
  });
}
