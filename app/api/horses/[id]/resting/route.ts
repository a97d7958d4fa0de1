import { restingSchema } from "@/core/schemas";
import { setResting } from "@/store";
import { takeForm } from "../../../../server/form-route";

/** Keeps the horse's own resting rates. */
export async function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeForm(request, restingSchema, async (store, rates) => {
    await setResting(store, id, rates);
    return { id };
  });
}
