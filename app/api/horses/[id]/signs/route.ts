import { pinnedSignsSchema } from "@/core/schemas";
import { setPinnedSigns } from "@/store";
import { takeForm } from "../../../../server/form-route";

/** Pins signs to a horse. */
export async function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeForm(request, pinnedSignsSchema, async (store, { signs = [] }) => {
    await setPinnedSigns(store, id, signs);
    return { id };
  });
}
