import { fromLog } from "@/core/events/circle-log";
import { type KitFitInput, kitFitSchema } from "@/core/schemas";
import { saveKitFit } from "@/store";
import { takeForm } from "../../../../../server/form-route";

/** Keeps how a piece of kit fits this horse. */
export async function PUT(request: Request, { params }: { params: Promise<{ id: string; kit: string }> }) {
  const { id, kit } = await params;
  return takeForm(request, kitFitSchema, async (store, input) => {
    await saveKitFit(store, id, kit, fromLog(input) as KitFitInput);
    return { kit };
  });
}
