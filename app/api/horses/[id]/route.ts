import { horseSchema } from "@/core/schemas";
import { updateHorse } from "@/store";
import { takeForm } from "../../../server/form-route";

export async function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeForm(request, horseSchema, async (store, horse) => {
    await updateHorse(store, id, horse);
    return { id };
  });
}
