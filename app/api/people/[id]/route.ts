import { personSchema } from "@/core/schemas";
import { updatePerson } from "@/store";
import { takeForm } from "../../../server/form-route";

export async function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeForm(request, personSchema, async (store, person) => {
    await updatePerson(store, id, person);
    return { id };
  });
}
